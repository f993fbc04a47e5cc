// A file that is compressed or encrypted as a whole behind a header of its own (sheet = "wrapper").

#include "base/phrase.h"
#include "container/sheet_container.h"
#include "container/wrapped.h"

namespace skivet {
namespace {

class SheetWrapper final : public Wrapper {
public:
    SheetWrapper(std::shared_ptr<const Sheet> sheet, const ReadContext& context, std::string reason)
        : sheet_(std::move(sheet)), keys_(context.keys), packers_(context.packers), limits_(context.limits), reason_(std::move(reason)) {}
    std::string name() const override { return sheet_->name; }
    std::string reason() const override { return reason_; }

    Result<Bytes> unwrap(ByteSpan file) const override {
        SKIVET_TRY(const auto header, read_header(*sheet_, file, limits_));
        SKIVET_TRY(const auto extent, extent_of(file, header));
        const auto stored = file.subspan(static_cast<std::size_t>(extent.first), static_cast<std::size_t>(extent.second));
        SKIVET_CHECK(check_sums(header, file, stored, Over::stored));
        Bytes plain;
        ByteSpan packed = stored;
        if (sheet_->crypt) {
            SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_->crypt, *keys_, header.values, file));
            SKIVET_TRY(plain, sheet_data::decrypt(*sheet_->crypt, {key, sheet_->crypt->iv, extent.first}, stored));
            packed = plain;
        }
        SKIVET_TRY(const auto method, method_of(header));
        SKIVET_TRY(const auto chunk, sheet_data::chunk_size(*sheet_, header.values));
        const auto* size = header.values.with(Meaning::size);
        if (!sheet_->starts_as.empty()) {
            SKIVET_TRY(plain, sheet_data::with_known_start(*sheet_, packed));
            packed = plain;
        }
        auto out = sheet_data::unpack(*sheet_, header.order, method, packed, size ? std::optional(size->number) : std::nullopt, chunk,
                                      limits_, *packers_);
        if (!out) return out;
        SKIVET_CHECK(check_sums(header, file, *out, Over::unpacked));
        return out;
    }

    Result<Bytes> wrap(ByteSpan file, Bytes content) const override {
        SKIVET_TRY(const auto header, read_header(*sheet_, file, limits_));
        SKIVET_TRY(const auto extent, extent_of(file, header));
        SKIVET_TRY(const auto method, method_of(header));
        SKIVET_TRY(const auto chunk, sheet_data::chunk_size(*sheet_, header.values));
        SKIVET_TRY(auto stored, sheet_data::pack(*sheet_, header.order, method, content, chunk, {}, *packers_));
        SKIVET_TRY(stored, sheet_data::with_own_start(*sheet_, std::move(stored)));
        if (sheet_->crypt) {
            SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_->crypt, *keys_, header.values, file));
            SKIVET_TRY(stored, sheet_data::encrypt(*sheet_->crypt, {key, sheet_->crypt->iv, extent.first}, stored));
        }
        Bytes out(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(extent.first));
        out.insert(out.end(), stored.begin(), stored.end());
        out.insert(out.end(), file.begin() + static_cast<std::ptrdiff_t>(extent.first + extent.second), file.end());
        const auto growth = static_cast<std::uint64_t>(out.size()) - file.size();
        const auto put = [&](const FieldValue& value, ByteSpan bytes) {
            const auto at = value.at + (value.at >= extent.first ? growth : 0);
            std::copy(bytes.begin(), bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(at));
        };
        for (const auto& [meaning, number] : {std::pair{Meaning::size, static_cast<std::uint64_t>(content.size())},
                                              std::pair{Meaning::stored_size, static_cast<std::uint64_t>(stored.size())},
                                              std::pair{Meaning::file_size, static_cast<std::uint64_t>(out.size())}})
            if (const auto* value = header.values.with(meaning)) {
                SKIVET_TRY(const auto bytes,
                           field_bytes(*value->field, header.order, number,
                                       file.subspan(static_cast<std::size_t>(value->at), static_cast<std::size_t>(value->size))));
                put(*value, bytes);
            }
        for (const auto over : {Over::unpacked, Over::stored, Over::header, Over::file})
            for (const auto& value : header.values.values) {
                if (value.field->means != Meaning::checksum || !value.field->is_over(over)) continue;
                Bytes copy = over == Over::unpacked ? content : stored;
                if (over == Over::header || over == Over::file) {
                    copy = out;
                    const auto at = header.at + (header.at >= extent.first ? growth : 0);
                    std::fill_n(copy.begin() + static_cast<std::ptrdiff_t>(value.at + (value.at >= extent.first ? growth : 0)), value.size,
                                std::byte{0});
                    if (over == Over::header)
                        copy = Bytes(copy.begin() + static_cast<std::ptrdiff_t>(at),
                                     copy.begin() + static_cast<std::ptrdiff_t>(at + (header.values.end - header.at)));
                }
                SKIVET_TRY(const auto bytes, sum_field_bytes(*value.field, header.order, copy));
                put(value, bytes);
            }
        return out;
    }

private:
    std::shared_ptr<const Sheet> sheet_;
    std::shared_ptr<const KeyRing> keys_;
    std::shared_ptr<const PackerPrograms> packers_;
    ReadLimits limits_;
    std::string reason_;

    Result<Method> method_of(const HeaderRead& header) const {
        std::string name = sheet_->method.empty() ? "stored" : sheet_->method;
        if (const auto* method = header.values.with(Meaning::method)) {
            SKIVET_TRY(name, named_value(*method));
        }
        return *method_named(*sheet_, name);
    }

    /// Where the wrapped bytes begin and how many they are.
    Result<std::pair<std::uint64_t, std::uint64_t>> extent_of(ByteSpan file, const HeaderRead& header) const {
        const auto at = sheet_->payload_at.value_or(sheet_->header_at < 0 ? 0 : header.values.end);
        const auto end = sheet_->header_at < 0 ? header.at : static_cast<std::uint64_t>(file.size());
        if (at > end) return fail_at(ErrorCode::damaged, at, "the data is said to begin behind the end of the file");
        const auto* stored = header.values.with(Meaning::stored_size);
        if (stored && stored->number > end - at)
            return fail_at(ErrorCode::damaged, stored->at, phrase("needs {} bytes, has {}", grouped(stored->number), grouped(end - at)));
        if (stored) return std::pair(at, stored->number);
        // Where no field says how long it is, a stream says itself where it ends; what follows is not explained and stays.
        SKIVET_TRY(const auto method, method_of(header));
        if (sheet_->crypt || sheet_->chunks || method.described || !method.packs() ||
            (needs_size(method.packing) && method.packing != Packing::lzma_raw) || method.packing == Packing::snappy)
            return std::pair(at, end - at);
        auto from = file.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(end - at));
        Bytes known;
        if (!sheet_->starts_as.empty()) {
            SKIVET_TRY(known, sheet_data::with_known_start(*sheet_, from));
            from = known;
        }
        SKIVET_TRY(const auto stream, unpack_stream(method.packing, from, limits_.inflated_bytes));
        return std::pair(at, stream.packed_size);
    }

public:
    /// What lies where in the file: header, content, and what the sheet does not explain.
    Result<std::vector<Segment>> segments(ByteSpan file) const {
        SKIVET_TRY(const auto header, read_header(*sheet_, file, limits_));
        SKIVET_TRY(const auto extent, extent_of(file, header));
        return with_gaps(
            {{Segment::What::table, header.at, header.values.end - header.at, 0}, {Segment::What::entry, extent.first, extent.second, 0}},
            file.size());
    }

private:
    Status check_sums(const HeaderRead& header, ByteSpan file, ByteSpan data, Over over) const {
        for (const auto& value : header.values.values) {
            if (value.field->means != Meaning::checksum) continue;
            std::string wrong;
            if (value.field->is_over(over)) {
                wrong = sum_mismatch(value, data);
            } else if (over == Over::stored && (value.field->is_over(Over::header) || value.field->is_over(Over::file))) {
                const auto whole = value.field->is_over(Over::file) ? file
                                                                    : file.subspan(static_cast<std::size_t>(header.at),
                                                                                   static_cast<std::size_t>(header.values.end - header.at));
                Bytes copy(whole.begin(), whole.end());
                std::fill_n(copy.begin() + static_cast<std::ptrdiff_t>(value.at - (value.field->is_over(Over::file) ? 0 : header.at)),
                            value.size, std::byte{0});
                wrong = sum_mismatch(value, copy);
            }
            if (wrong.empty()) continue;
            return fail_at(
                sheet_->crypt && over == Over::unpacked ? ErrorCode::key : ErrorCode::damaged, value.at, wrong,
                sheet_->crypt && over == Over::unpacked ? "The key is not the right one, or the file is damaged" : "The file is damaged");
        }
        return {};
    }
};

class SheetWrapperKind final : public SheetKindBase {
public:
    using SheetKindBase::SheetKindBase;
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        SKIVET_TRY(const auto data, file.bytes());
        auto recognized = recognize(data, data.size(), file.path().string());
        auto opened = open_wrapped(context, std::move(file),
                                   std::make_shared<SheetWrapper>(sheet_, context, recognized ? recognized->reason : "your choice"));
        if (!opened) return fail(std::move(opened).error().within(phrase("sheet \"{}\"", sheet_->name)));
        return opened;
    }
};

}  // namespace

Result<std::vector<Segment>> wrapper_segments(std::shared_ptr<const Sheet> sheet, const ReadContext& context, ByteSpan file) {
    return SheetWrapper(std::move(sheet), context, {}).segments(file);
}

std::shared_ptr<const ContainerKind> sheet_wrapper_kind(std::shared_ptr<const Sheet> sheet) {
    return std::make_shared<SheetWrapperKind>(std::move(sheet));
}

}  // namespace skivet
