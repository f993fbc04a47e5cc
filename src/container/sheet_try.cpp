#include "container/sheet_try.h"

#include <fmt/format.h>
#include <algorithm>
#include <fstream>

#include "base/file_write.h"
#include "base/hash.h"
#include "base/phrase.h"
#include "container/address.h"
#include "container/sheet_lister.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

std::string value_text(const FieldValue& value) {
    const auto& f = *value.field;
    if (f.type == FieldType::pad) return phrase("{} bytes", value.size);
    if (f.type == FieldType::bytes)
        return to_hex(as_bytes(value.text).first(std::min<std::size_t>(value.text.size(), 16))) + (value.text.size() > 16 ? "…" : "");
    if (f.type == FieldType::text) return '"' + value.text + '"';
    if (f.type == FieldType::real) {
        if (f.width == 4) return fmt::format("{}", std::bit_cast<float>(static_cast<std::uint32_t>(value.number)));
        return fmt::format("{}", std::bit_cast<double>(value.number));
    }
    const auto named = f.values.find(raw_number(f, value.number));
    if (named != f.values.end()) return fmt::format("{} ({})", named->second, raw_number(f, value.number));
    if (f.means == Meaning::checksum || f.means == Meaning::path_hash) return fmt::format("{:0{}x}", value.number, 2 * f.width);
    if (f.is_signed && value.number >> 63) return fmt::format("{}", static_cast<std::int64_t>(value.number));
    return grouped(value.number);
}

void add_fields(Trial& out, const RecordValues& record, const std::string& where, ByteSpan image, std::uint64_t file_size) {
    for (const auto& value : record.values) {
        TriedField f;
        f.where = where;
        f.name = value.field->name;
        if (value.field->means != Meaning::none) f.means = name_of(value.field->means);
        f.at = value.at;
        if (f.at >= file_size) f.at -= file_size, f.where = phrase("{}, in the unpacked directory", said(f.where));
        f.size = value.size;
        f.value = value_text(value);
        const auto shown = std::min<std::uint64_t>(value.size, 16);
        if (value.at <= image.size() && shown <= image.size() - value.at)
            for (const auto b : image.subspan(static_cast<std::size_t>(value.at), static_cast<std::size_t>(shown)))
                f.bytes += fmt::format("{}{:02x}", f.bytes.empty() ? "" : " ", static_cast<unsigned>(b));
        out.fields.push_back(std::move(f));
    }
}

void count_gaps(Trial& out, ByteSpan file, std::byte fill) {
    for (const auto& segment : out.segments) {
        if (segment.what != Segment::What::gap) continue;
        const auto bytes = file.subspan(static_cast<std::size_t>(segment.at), static_cast<std::size_t>(segment.size));
        if (std::all_of(bytes.begin(), bytes.end(), [&](std::byte b) { return b == std::byte{0} || b == fill; })) {
            out.padding += segment.size;
            ++out.paddings;
        } else {
            out.unexplained += segment.size;
            out.unknown.push_back(segment);
        }
    }
}

/// Writes a plan into copies; nobody else uses them, so no journal is needed.
Status write_copies(const WritePlan& plan) {
    for (const auto& file : plan.files) {
        SKIVET_TRY(const auto view, FileView::open(file.file));
        SKIVET_TRY(const auto current, view.bytes());
        SKIVET_TRY(const auto bytes, planned_bytes(file, current));
        SKIVET_CHECK(write_file(file.file, bytes));
    }
    return {};
}

/// What the sheet does not explain of a container; of other kinds, where nothing ever moves in a file, nothing.
Result<std::vector<Bytes>> unexplained_in(const Container& container) {
    if (const auto* sheet = dynamic_cast<const SheetContainer*>(&container)) return sheet->unexplained();
    return std::vector<Bytes>{};
}

/// Whether each of the pieces is still there, whole and in its order. Places that entries have left may now join two of them.
bool still_there(const std::vector<Bytes>& pieces, const std::vector<Bytes>& now) {
    std::size_t in = 0;
    std::ptrdiff_t from = 0;
    for (const auto& piece : pieces) {
        for (;; ++in, from = 0) {
            if (in == now.size()) return false;
            const auto found = std::search(now[in].begin() + from, now[in].end(), piece.begin(), piece.end());
            if (found == now[in].end()) continue;
            from = found - now[in].begin() + static_cast<std::ptrdiff_t>(piece.size());
            break;
        }
    }
    return true;
}

/// Hash of every entry's content.
Result<std::vector<Sha256>> read_all(const Container& container, const ReadLimits& limits) {
    std::vector<Sha256> out;
    for (std::size_t i = 0; i < container.entries().size(); ++i) {
        SKIVET_TRY(const auto data, container.read(i, limits));
        out.push_back(sha256(data));
    }
    return out;
}

}  // namespace

Result<Trial> try_sheet(const ReadContext& context, std::shared_ptr<const Sheet> sheet, const FileView& file, std::size_t records,
                        std::uint64_t content_bytes) {
    Trial out;
    SKIVET_TRY(const auto bytes, file.bytes());
    if (auto reason = recognize(*sheet, bytes, bytes.size(), file.path().string())) out.recognized_by = std::move(*reason);
    else out.first_wrong = Error{ErrorCode::unsupported, "the conditions of [[recognize]] do not hold", {}, {}, "It is tried all the same"};
    if (auto header = read_header(*sheet, bytes, context.limits)) add_fields(out, header->values, "header", bytes, bytes.size());
    if (sheet->kind == SheetKind::wrapper) {
        auto segments = wrapper_segments(sheet, context, bytes);
        if (segments) out.segments = std::move(*segments);
        else if (!out.first_wrong) out.first_wrong = std::move(segments).error();
        count_gaps(out, bytes, std::byte{0});
    }
    if (sheet->kind != SheetKind::container) return out;
    auto [container, wrong] = SheetContainer::open_as_far(file, sheet, context);
    if (wrong && !out.first_wrong) out.first_wrong = std::move(wrong);
    out.entries = container->entries().size();
    for (std::size_t i = 0; i < std::min<std::size_t>(out.entries, 10'000); ++i) out.names.push_back(container->entries()[i].path);
    if (!out.first_wrong && !container->problems().empty()) out.first_wrong = container->problems().front();
    SKIVET_TRY(const auto image, container->image());
    for (std::size_t i = 0; i < out.entries; ++i) {
        if (i < records)
            if (const auto record = container->record_of(i))
                add_fields(out, *record, phrase("entry {} ({})", i + 1, container->entries()[i].path), image, bytes.size());
        if (content_bytes == 0) continue;
        const auto content = container->read(i, context.limits);
        ++out.looked_at;
        if (content) ++out.readable;
        content_bytes -= std::min<std::uint64_t>(content_bytes, content ? content->size() : 0);
        if (content) continue;
        if (!out.first_wrong) out.first_wrong = content.error();
    }
    out.segments = container->segments();
    count_gaps(out, bytes, sheet->fill);
    return out;
}

std::string text_of(const Proof& p) {
    auto out = phrase("{} of {} entries were changed and put back in a copy, {} made longer, too", p.changed, p.entries,
                      p.longer == p.changed ? said("all") : fmt::format("{}", p.longer));
    if (!p.refused.empty()) out += fmt::format(" ({})", said(p.refused));
    out += p.unexplained == 0 ? said("; every byte is explained")
                              : phrase("; {} bytes are not explained, and stayed where they belong", grouped(p.unexplained));
    return out;
}

Result<Proof> prove_writing(const ReadContext& context, const fs::path& archive, const Progress& progress) {
    SKIVET_TRY(const auto original, open_source(context, archive));
    const TemporaryFolder copy;
    if (copy.path.empty()) return fail(ErrorCode::io, "cannot make a temporary folder");
    // Data files lie beside the archive and share its stem.
    std::uint64_t total = 0;
    std::error_code code;
    const auto stem = archive.stem().string();
    const auto folder = archive.parent_path().empty() ? fs::path(".") : archive.parent_path();
    std::vector<fs::path> files;
    for (const auto& item : fs::directory_iterator(folder, code))
        if (item.is_regular_file(code) && item.path().filename().string().starts_with(stem))
            files.push_back(item.path()), total += item.file_size(code);
    if (total > (1ull << 30))
        return fail(ErrorCode::limit, phrase("{} are too much to copy for a proof", human_bytes(total)),
                    "Try it on a smaller archive of the same layout");
    for (const auto& file : files) fs::copy_file(file, copy.path / file.filename(), code);
    if (code) return fail_errno(code.value(), "cannot copy the archive");
    const auto path = copy.path / archive.filename();
    SKIVET_TRY(const auto unexplained, unexplained_in(*original));
    auto expected = read_all(*original, context.limits);
    if (!expected) return fail(std::move(expected).error().within("reading"));
    const auto count = original->entries().size();
    Proof proof;
    proof.entries = count;
    for (const auto& piece : unexplained) proof.unexplained += piece.size();
    // Every entry of a small archive, some all over a large one.
    const auto step = std::max<std::size_t>(1, count / 24);
    for (std::size_t i = 0; i < count; i += step) {
        SKIVET_CHECK(progress.cancel.check());
        SKIVET_TRY(const auto content, original->read(i, context.limits));
        const auto put = [&](const Bytes& bytes, const char* what) -> Status {
            const auto named = [&](Error error) { return fail(std::move(error).within(what).within(original->entries()[i].path)); };
            auto container = open_source(context, path);
            if (!container) return named(std::move(container).error());
            const auto plan = (*container)->plan(std::vector<Replacement>{{i, bytes}}, context.limits);
            if (!plan) return named(plan.error());
            if (auto written = write_copies(*plan); !written) return named(std::move(written).error());
            auto again = open_source(context, path);
            if (!again) return named(std::move(again).error());
            (*expected)[i] = sha256(bytes);
            const auto others = unexplained_in(**again);
            if (!others) return named(others.error());
            if (!still_there(unexplained, *others))
                return named(Error{ErrorCode::unfit,
                                   "bytes the sheet does not explain were changed or dropped",
                                   {},
                                   {},
                                   "Say in the sheet what they are"});
            const auto now = read_all(**again, context.limits);
            if (!now) return named(now.error());
            for (std::size_t k = 0; k < now->size() || k < expected->size(); ++k)
                if (k >= now->size() || k >= expected->size() || (*now)[k] != (*expected)[k])
                    return named(Error{ErrorCode::unfit,
                                       k == i ? "does not read back as it was written" : phrase("entry {} changed with it", k + 1),
                                       {},
                                       {},
                                       "A field has a meaning the sheet does not say"});
            return {};
        };
        auto other = content;
        const auto* by_sheet = dynamic_cast<const SheetContainer*>(original.get());
        const bool texture = by_sheet && by_sheet->shows_texture(i);
        if (texture) other.back() ^= std::byte{0xFF};  // of the last level; the middle may be the header
        else if (other.empty()) other.push_back(std::byte{1});
        else other[other.size() / 2] ^= std::byte{0xFF};
        SKIVET_CHECK(put(other, "changed"));
        if (texture) {
            proof.refused = "a texture has the length its sides call for";
            SKIVET_CHECK(put(content, "put back"));
            ++proof.changed;
            continue;
        }
        auto longer = other;
        longer.insert(longer.end(), 777, std::byte{0x5A});
        auto grown = put(longer, "made longer");
        // A layout that cannot take more says so; that is no fault of the sheet.
        if (grown) ++proof.longer;
        else if (grown.error().code == ErrorCode::unsupported) proof.refused = grown.error().what;
        else return fail(std::move(grown).error());
        SKIVET_CHECK(put(content, "put back"));
        ++proof.changed;
    }
    return proof;
}

}  // namespace skivet
