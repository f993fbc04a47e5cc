#include "container/sheet_container.h"

#include <fmt/format.h>
#include <algorithm>
#include <numeric>

#include "base/file_write.h"
#include "base/phrase.h"
#include "container/overlaps.h"
#include "container/record_texture.h"
#include "container/sheet_lister.h"
#include "sheet/method.h"

namespace skivet {

namespace {

/// An error behind encryption: most likely the key is another one.
Error not_the_key(const CryptSpec& crypt, Error error) {
    error.code = ErrorCode::key;
    error.what = phrase("the key \"{}\" does not open it: {}", crypt.key, said(error.what));
    error.advice = "Look for the right key; if it is the right one, the file is damaged";
    return error;
}

}  // namespace

std::pair<std::unique_ptr<SheetContainer>, std::optional<Error>> SheetContainer::open_as_far(FileView view,
                                                                                             std::shared_ptr<const Sheet> sheet,
                                                                                             const ReadContext& context) {
    auto out = std::make_unique<SheetContainer>();
    out->file_ = std::move(view);
    out->image_ = out->file_;
    out->sheet_ = std::move(sheet);
    out->keys_ = context.keys;
    out->packers_ = context.packers;
    out->past_ = context.past;
    if (out->sheet_->hash) out->known_paths_ = context.known_paths;
    std::optional<Error> wrong;
    const auto list = [&]() -> Status {
        SKIVET_TRY(const auto file, out->file_.bytes());
        // A user may have chosen the sheet for a file it does not recognize.
        out->recognized_by_ =
            skivet::recognize(*out->sheet_, file, file.size(), out->file_.path().string()).value_or("being chosen for it");
        if (out->recognized_by_.empty()) out->recognized_by_ = "its tables, which explain every byte";
        return Lister(*out, context).list();
    };
    auto done = list();
    out->number_doubles();
    out->note_repeats(context.limits);
    if (!done) {
        wrong = std::move(done).error();
        // What a wrong key makes of a directory looks damaged.
        if (out->sheet_->table_crypt && wrong->code == ErrorCode::damaged && out->keys_->find(out->sheet_->table_crypt->key))
            wrong = not_the_key(*out->sheet_->table_crypt, std::move(*wrong));
    }
    return {std::move(out), std::move(wrong)};
}

Result<std::unique_ptr<Container>> SheetContainer::open(FileView view, std::shared_ptr<const Sheet> sheet, const ReadContext& context) {
    auto [out, wrong] = open_as_far(std::move(view), std::move(sheet), context);
    if (wrong) return fail(std::move(*wrong));
    return std::unique_ptr<Container>(std::move(out));
}

std::uint64_t SheetContainer::base_of(const Field& field, std::uint64_t field_at) const {
    auto base = field.base;
    if (!field.base_field.empty())
        if (const auto* value = header_.values.named(field.base_field)) base += value->number;
    if (field.from_field) base += field_at;
    if (field.base_section) base += end_of(*field.base_section);
    return base;
}

std::uint64_t SheetContainer::end_of(Place::From section) const {
    auto end = header_.values.end;
    if (section == Place::From::after_folders) end = folders_end_;
    if (section == Place::From::after_record) end = table_end_;
    if (section == Place::From::after_names) end = names_end_;
    return packed_end_ > 0 && end > file_.size() ? packed_end_ : end;  // in the packed directory
}

Result<RecordValues> SheetContainer::record_of(std::size_t entry) const {
    SKIVET_TRY(const auto image, image_.bytes());
    RecordValues out;
    const auto at = items_[entry].record_at;
    if (sheet_->record.arrays)
        SKIVET_CHECK(read_array_record(sheet_->record, header_.order, image, array_at_, at, array_count_, ReadLimits{}, out));
    else SKIVET_CHECK(read_record(sheet_->record, header_.order, image, at, ReadLimits{}, out));
    return out;
}

Result<std::optional<Bytes>> SheetContainer::summed(const FieldValue& value, ByteSpan file, ByteSpan image) const {
    Bytes out;
    const auto add = [&](ByteSpan from, std::uint64_t at, std::uint64_t end) -> Status {
        SKIVET_TRY(const auto bytes, slice(from, at, end - at));
        // The field itself counts as zeros.
        const auto start = out.size();
        out.insert(out.end(), bytes.begin(), bytes.end());
        if (value.at >= at && value.at < end)
            std::fill_n(out.begin() + static_cast<std::ptrdiff_t>(start + value.at - at), std::min(value.size, end - value.at),
                        std::byte{0});
        return {};
    };
    for (const auto over : value.field->over) switch (over) {
            case Over::table: SKIVET_CHECK(add(image, table_at_, table_end_)); break;
            case Over::names: SKIVET_CHECK(add(image, names_at_, names_end_)); break;
            case Over::folders: SKIVET_CHECK(add(image, folders_at_, folders_end_)); break;
            case Over::header: SKIVET_CHECK(add(file, header_.at, header_.values.end)); break;
            case Over::file: SKIVET_CHECK(add(file, 0, file.size())); break;
            default: return std::optional<Bytes>();
        }
    return std::optional(std::move(out));
}

Status SheetContainer::check_table_sums(ByteSpan file, ByteSpan image) const {
    for (const auto& value : header_.values.values) {
        if (value.field->means != Meaning::checksum) continue;
        SKIVET_TRY(const auto over, summed(value, file, image));
        if (!over) continue;
        const char* what = value.field->is_over(Over::header)  ? "header"
                           : value.field->is_over(Over::file)  ? "file"
                           : value.field->is_over(Over::names) ? "names"
                                                               : "directory";
        if (const auto wrong = sum_mismatch(value, *over); !wrong.empty())
            return fail_at(ErrorCode::damaged, value.at, fmt::format("{}: {}", said(what), wrong),
                           "The archive is damaged or was changed by a program that does not know its checksums");
    }
    return {};
}

std::string SheetContainer::data_file_name(std::uint32_t number) const {
    const auto stem = file_.path().stem().string();
    std::string out;
    const std::string_view pattern = sheet_->data_file;
    for (std::size_t at = 0; at < pattern.size();) {
        if (pattern[at] != '{') {
            out += pattern[at++];
            continue;
        }
        const auto end = std::min(pattern.find('}', at), pattern.size());
        const auto word = pattern.substr(at + 1, end - at - 1);
        if (word == "stem") out += stem;
        else if (word == "number") out += std::to_string(number);
        else if (word.starts_with("number:"))
            out += fmt::format("{:0{}}", number, std::clamp(std::atoi(std::string(word.substr(7)).c_str()), 1, 9));
        at = end + 1;
    }
    return out;
}

std::vector<std::filesystem::path> SheetContainer::other_files() const {
    std::vector<std::filesystem::path> out;
    for (const auto number : files_used())
        if (number != own_file) out.push_back(file_.path().parent_path() / data_file_name(number));
    return out;
}

Result<FileView> SheetContainer::data_file(std::uint32_t number) const {
    if (number == own_file) return file_;
    const std::lock_guard lock(mutex_);
    if (const auto found = data_files_.find(number); found != data_files_.end()) return found->second;
    const auto name = data_file_name(number);
    if (file_.in_memory()) return fail(ErrorCode::missing, phrase("the data file {} is not beside an archive inside an archive", name));
    auto opened = open_file(past_.get(), file_.path().parent_path() / name);
    if (!opened) {
        auto error = std::move(opened).error();
        if (error.code == ErrorCode::missing)
            error = Error{ErrorCode::missing, phrase("the data file {} is not there", name), {}, {}, "Put it beside the index file"};
        return fail(std::move(error));
    }
    data_files_.emplace(number, *opened);
    return opened;
}

Result<std::shared_ptr<const Bytes>> SheetContainer::chunk_bytes(std::size_t index) const {
    {
        const std::lock_guard lock(mutex_);
        if (const auto known = unpacked_.find(index); known != unpacked_.end()) return known->second;
    }
    const auto& chunk = chunks_[index];
    const auto in_chunk = [&](Error error) { return fail(std::move(error).within(phrase("chunk {}", index + 1))); };
    const auto stored = file_.bytes(chunk.at, chunk.stored);
    if (!stored) return in_chunk(stored.error());
    auto bytes = unpack_by(chunk.raw ? Method{} : *method_named(*sheet_, sheet_->method), *stored, chunk.size, ReadLimits{}, *packers_);
    if (!bytes) return in_chunk(std::move(bytes).error());
    auto out = std::make_shared<const Bytes>(std::move(*bytes));
    const std::lock_guard lock(mutex_);
    if (unpacked_.size() >= 8) unpacked_.erase(unpacked_.begin());  // neighbors in one chunk are read one after the other
    unpacked_[index] = out;
    return out;
}

Result<Bytes> SheetContainer::stream_bytes(std::uint64_t at, std::uint64_t size) const {
    const auto end = chunks_.back().start + chunks_.back().size;
    if (at > end || size > end - at)
        return fail_at(ErrorCode::damaged, at,
                       phrase("needs {} bytes of the stream, has {}", grouped(size), grouped(end - std::min(at, end))));
    Bytes out;
    if (size == 0) return out;
    auto chunk = static_cast<std::size_t>(
                     std::upper_bound(chunks_.begin(), chunks_.end(), at, [](std::uint64_t a, const Chunk& c) { return a < c.start; }) -
                     chunks_.begin()) -
                 1;
    out.reserve(static_cast<std::size_t>(size));
    for (; size > 0; ++chunk) {
        SKIVET_TRY(const auto bytes, chunk_bytes(chunk));
        const auto from = at - chunks_[chunk].start;
        const auto count = std::min(size, bytes->size() - from);
        out.insert(out.end(), bytes->begin() + static_cast<std::ptrdiff_t>(from),
                   bytes->begin() + static_cast<std::ptrdiff_t>(from + count));
        at += count;
        size -= count;
    }
    return out;
}

Result<SheetContainer::Stored> SheetContainer::stored_bytes(std::size_t entry) const {
    const auto& item = items_[entry];
    Stored out;
    if (!chunks_.empty()) {
        SKIVET_TRY(out.owned, stream_bytes(item.data_at, item.stored));
        out.bytes = out.owned;
        return out;
    }
    if (sheet_->part_size == 0) {
        SKIVET_TRY(out.keep, data_file(item.file));
        SKIVET_TRY(out.bytes, out.keep->bytes(item.data_at, item.stored));
        return out;
    }
    const auto first = static_cast<std::uint32_t>(item.data_at / sheet_->part_size);
    auto at = item.data_at % sheet_->part_size;
    auto left = item.stored;
    for (auto number = first; left > 0 || number == first; ++number) {
        SKIVET_TRY(out.keep, data_file(number));
        const auto count = std::min(left, sheet_->part_size - at);
        SKIVET_TRY(out.bytes, out.keep->bytes(at, count));
        if (number == first && count == left) return out;  // the common case: all in one part
        out.owned.insert(out.owned.end(), out.bytes.begin(), out.bytes.end());
        left -= count;
        at = 0;
    }
    out.bytes = out.owned;
    return out;
}

Result<Bytes> SheetContainer::iv_of(std::size_t entry) const {
    const auto& spec = *sheet_->crypt;
    if (spec.iv_is_number) {
        Bytes iv(16);
        store_le(iv.data(), static_cast<std::uint64_t>(entry));
        return iv;
    }
    if (!spec.iv_field.empty()) {
        SKIVET_TRY(const auto record, record_of(entry));
        const auto bytes = as_bytes(record.named(spec.iv_field)->text);
        return Bytes(bytes.begin(), bytes.end());
    }
    return spec.iv;
}

Result<Bytes> SheetContainer::crypt_entry(ByteSpan data, std::size_t entry, std::uint64_t at, bool encrypt) const {
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(const auto key, sheet_data::key_for(*sheet_->crypt, *keys_, header_.values, file));
    SKIVET_TRY(const auto iv, iv_of(entry));
    const sheet_data::CipherInput input{key, iv, at};
    return encrypt ? sheet_data::encrypt(*sheet_->crypt, input, data) : sheet_data::decrypt(*sheet_->crypt, input, data);
}

Result<Bytes> SheetContainer::unpack_entry(ByteSpan stored, std::size_t entry, const ReadLimits& limits) const {
    const auto& item = items_[entry];
    const auto at = item.data_at;
    if (!item.method) {
        SKIVET_TRY(const auto record, record_of(entry));
        return fail(named_value(*record.with(Meaning::method)).error());
    }
    Bytes plain;
    if (item.encrypted) {
        SKIVET_TRY(plain, crypt_entry(stored, entry, at, false));
        stored = plain;
    }
    SKIVET_TRY(const auto chunk, sheet_data::chunk_size(*sheet_, header_.values));
    if (!sheet_->starts_as.empty() && item.method->packs()) {
        SKIVET_TRY(plain, sheet_data::with_known_start(*sheet_, stored));
        stored = plain;
    }
    auto out = sheet_data::unpack(*sheet_, header_.order, *item.method, stored, item.states_size ? std::optional(item.size) : std::nullopt,
                                  chunk, limits, *packers_);
    if (!out) {
        auto error = std::move(out).error();
        error.at = at;
        if (item.encrypted && error.code == ErrorCode::damaged) error.advice = "The entry is damaged, or the key is not the right one";
        return fail(std::move(error));
    }
    return out;
}

Status SheetContainer::check_sums(std::size_t entry, ByteSpan stored, ByteSpan unpacked) const {
    if (!sheet_->record.with(Meaning::checksum)) return {};
    SKIVET_TRY(const auto record, record_of(entry));
    for (const auto& value : record.values) {
        if (value.field->means != Meaning::checksum) continue;
        const auto wrong = sum_mismatch(value, value.field->is_over(Over::stored) ? stored : unpacked);
        if (wrong.empty()) continue;
        const auto& item = items_[entry];
        if (item.encrypted && !item.method->packs() && value.field->is_over(Over::unpacked) && !sheet_->crypt->key.empty())
            return fail_at(ErrorCode::key, item.data_at, wrong, "The key is not the right one, or the entry is damaged");
        return fail_at(ErrorCode::damaged, item.data_at, wrong, "The entry is damaged; other entries can still be used");
    }
    return {};
}

Result<Bytes> SheetContainer::unpack_entry(std::size_t entry, const ReadLimits& limits) const {
    const auto all = [&]() -> Result<Bytes> {
        if (items_[entry].repeats) return refuse_repeat(items_[entry].data_at);
        SKIVET_TRY(const auto stored, stored_bytes(entry));
        file_.note_read(stored.bytes.size());
        SKIVET_TRY(auto out, unpack_entry(stored.bytes, entry, limits));
        SKIVET_CHECK(check_sums(entry, stored.bytes, out));
        return shown(entry, std::move(out), limits);
    };
    auto out = all();
    if (out) return out;
    auto error = std::move(out).error();
    if (items_[entry].encrypted && sheet_->crypt && !sheet_->crypt->key.empty() && error.code == ErrorCode::damaged)
        error = not_the_key(*sheet_->crypt, std::move(error));
    return fail(in_entry(*this, entry, std::move(error)));
}

Result<Bytes> SheetContainer::stored_entry(std::size_t entry, const ReadLimits& limits) const {
    if (!chunks_.empty()) return Container::stored_entry(entry, limits);
    auto stored = stored_bytes(entry);
    if (!stored) return fail(in_entry(*this, entry, std::move(stored).error()));
    if (stored->bytes.size() > limits.inflated_bytes)
        return fail(in_entry(*this, entry,
                             Error{ErrorCode::limit, phrase("{} are more than the limit", human_bytes(stored->bytes.size())), {}, {}, {}}));
    return Bytes(stored->bytes.begin(), stored->bytes.end());
}

Result<Bytes> SheetContainer::shown(std::size_t entry, Bytes data, const ReadLimits& limits) const {
    if (!items_[entry].texture) return data;
    SKIVET_TRY(const auto image, image_.bytes());
    SKIVET_TRY(const auto record, record_of(entry));
    return RecordTexture(*textures_, record, image).file_of(data, limits);
}

Result<Bytes> SheetContainer::head_of_entry(std::size_t entry, std::size_t count) const {
    const auto& item = items_[entry];
    const auto all = [&]() -> Result<Bytes> {
        SKIVET_TRY(const auto stored, stored_bytes(entry));
        if (item.texture) {
            SKIVET_TRY(auto data, unpack_entry(stored.bytes, entry, ReadLimits{}));
            SKIVET_TRY(auto out, shown(entry, std::move(data), ReadLimits{}));
            out.resize(std::min(count, out.size()));
            return out;
        }
        if (item.encrypted || !item.method || item.method->described || !sheet_->starts_as.empty() ||
            (sheet_->chunks && item.method->packs())) {
            SKIVET_TRY(auto out, unpack_entry(stored.bytes, entry, ReadLimits{}));
            out.resize(std::min(count, out.size()));
            return out;
        }
        if (item.states_size) count = static_cast<std::size_t>(std::min<std::uint64_t>(count, item.size));
        return unpack_prefix(item.method->packing, stored.bytes, count);
    };
    auto out = all();
    if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
    return out;
}

Result<FileView> SheetContainer::view_of_entry(std::size_t entry, const ReadLimits& limits) const {
    const auto& item = items_[entry];
    if (item.texture || item.encrypted || !item.method || item.method->packs() || !chunks_.empty() || sheet_->part_size > 0)
        return Container::view_of_entry(entry, limits);
    if (item.repeats) return fail(in_entry(*this, entry, refuse_repeat(item.data_at).value()));
    auto file = data_file(item.file);
    if (!file) return fail(in_entry(*this, entry, std::move(file).error()));
    return file->part(item.data_at, item.stored, entries_[entry].path);
}

std::vector<Segment> SheetContainer::entry_segments(std::uint32_t file) const {
    std::vector<Segment> out;
    if (sheet_->part_size > 0) return out;
    if (chunks_.empty()) {
        for (std::size_t i = 0; i < items_.size(); ++i)
            if (items_[i].file == file) out.push_back({Segment::What::entry, items_[i].data_at, items_[i].stored, i});
        return out;
    }
    // Each chunk counts for the entry that begins last before its end.
    std::vector<std::size_t> order(items_.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](auto a, auto b) { return items_[a].data_at < items_[b].data_at; });
    std::size_t next = 0;
    for (const auto& chunk : chunks_) {
        while (next + 1 < order.size() && items_[order[next + 1]].data_at < chunk.start + chunk.size) ++next;
        if (!order.empty()) out.push_back({Segment::What::entry, chunk.at, chunk.stored, order[next]});
    }
    return out;
}

std::vector<Segment> SheetContainer::segments() const {
    std::vector<Segment> used;
    for (const auto& table : tables_) used.push_back({Segment::What::table, table.at, table.end - table.at, 0});
    const auto entries = entry_segments(own_file);
    used.insert(used.end(), entries.begin(), entries.end());
    return with_gaps(std::move(used), file_.size());
}

std::optional<Recognized> SheetKindBase::recognize(ByteSpan head, std::uint64_t file_size, std::string_view path) const {
    auto reason = skivet::recognize(*sheet_, head, file_size, path);
    if (!reason) return std::nullopt;
    const auto tables = std::any_of(sheet_->recognize.begin(), sheet_->recognize.end(), [](const auto& rule) { return rule.tables_hold; });
    auto rank = ranks::sheet + static_cast<int>(sheet_->recognize.size());
    if (tables) {
        if (head.size() != file_size || !tables_hold(head)) return std::nullopt;
        if (reason->empty()) rank = ranks::weak + 1;  // nothing else speaks for it
        *reason = reason->empty() ? said("its tables, which explain every byte") : phrase("{}, its tables", *reason);
    }
    return Recognized{rank, std::move(*reason)};
}

std::vector<std::string> SheetKindBase::wanted_packers() const {
    std::vector<std::string> out;
    for (const auto& packer : sheet_->packers)
        if (packer.kind == PackerSpec::Kind::program) out.push_back(packer.name);
    return out;
}

bool SheetKindBase::tables_hold(ByteSpan file) const {
    ReadContext context;
    context.containers.clear();
    const auto opened = SheetContainer::open(FileView::over(file, "x"), sheet_, context);
    if (!opened || (*opened)->entries().empty() || !(*opened)->problems().empty()) return false;
    for (const auto& entry : (*opened)->entries())
        if (entry.at > file.size() || entry.stored > file.size() - entry.at) return false;
    const auto rest = static_cast<const SheetContainer&>(**opened).unexplained();
    return rest && rest->empty();
}

namespace {

class SheetKindOf final : public SheetKindBase {
public:
    using SheetKindBase::SheetKindBase;
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        auto opened = SheetContainer::open(std::move(file), sheet_, context);
        if (!opened) return fail(std::move(opened).error().within(phrase("sheet \"{}\"", sheet_->name)));
        return std::shared_ptr<const Container>(std::move(*opened));
    }
};

}  // namespace

std::shared_ptr<const ContainerKind> sheet_kind(std::shared_ptr<const Sheet> sheet) {
    return std::make_shared<SheetKindOf>(std::move(sheet));
}

std::optional<std::size_t> SheetContainer::unnamed_by(std::string_view path) const {
    const auto* field = sheet_->record.with(Meaning::path_hash);
    if (unnamed_.empty() || !sheet_->hash || !field) return std::nullopt;
    const auto found = unnamed_.find(path_hash(*sheet_->hash, field->width, path));
    return found == unnamed_.end() ? std::nullopt : std::optional(found->second);
}

}  // namespace skivet
