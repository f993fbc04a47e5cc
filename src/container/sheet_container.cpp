#include "container/sheet_container.h"

#include <fmt/format.h>

#include "base/deflate.h"
#include "base/hash.h"

namespace skivet {
namespace {

/// The method's name; "stored" when the sheet has no such field.
Result<std::string_view> method_of(const RecordValues& record) {
    const auto* value = record.with(Meaning::method);
    if (!value) return std::string_view("stored");
    const auto found = value->field->values.find(value->number / value->field->unit);
    if (found != value->field->values.end()) return std::string_view(found->second);
    return fail_at(ErrorCode::unsupported, value->at, fmt::format("field {}: the sheet has no name for {}", value->field->name, value->number),
                   "Add it to the field's values in the sheet");
}

}  // namespace

Result<std::unique_ptr<Container>> SheetContainer::open(FileView view, std::shared_ptr<const Sheet> sheet, const ReadLimits& limits) {
    auto out = std::make_unique<SheetContainer>();
    out->file_ = std::move(view);
    out->sheet_ = std::move(sheet);
    SKIVET_TRY(const auto file, out->file_.bytes());
    const auto reason = skivet::recognize(*out->sheet_, file, file.size(), out->file_.path().string());
    if (!reason) return fail(ErrorCode::unsupported, fmt::format("does not fit the sheet \"{}\"", out->sheet_->name));
    out->recognized_by_ = *reason;
    SKIVET_CHECK(out->read_table(file, limits));
    return out;
}

Status SheetContainer::read_table(ByteSpan file, const ReadLimits& limits) {
    auto header = read_record(*sheet_, sheet_->header, file, sheet_->header_at, limits);
    if (!header) return fail(std::move(header).error().within("header"));
    header_ = std::move(*header);
    const auto count = header_.number(Meaning::entry_count);
    table_at_ = header_.number(Meaning::table_offset);
    // A record takes at least one byte a field, so a count beyond the file's size is damage; checked before memory is taken.
    if (count > limits.entries || count > file.size())
        return fail_at(ErrorCode::damaged, header_.with(Meaning::entry_count)->at, fmt::format("{} entries in {} bytes", grouped(count), grouped(file.size())));
    std::uint64_t at = table_at_;
    starts_ = {sheet_->header_at, table_at_, file.size()};
    for (std::uint64_t i = 0; i < count; ++i) {
        auto record = read_record(*sheet_, sheet_->record, file, at, limits);
        if (!record) return fail(std::move(record).error().within(fmt::format("entry {}", i + 1)).within("directory"));
        at = record->end;
        Entry entry;
        entry.path = record->with(Meaning::path)->text;
        std::replace(entry.path.begin(), entry.path.end(), '\\', '/');
        entry.stored = record->number(Meaning::stored_size);
        entry.size = record->number(Meaning::size, entry.stored);
        entry.at = record->number(Meaning::data_offset);
        const auto method = method_of(*record);
        entry.method = !method ? "unknown" : *method == "deflate" ? "deflate" : "stored";
        starts_.push_back(entry.at);
        entries_.push_back(std::move(entry));
        records_.push_back(std::move(*record));
    }
    table_end_ = at;
    if (const auto* size = header_.with(Meaning::table_size); size && size->number != table_end_ - table_at_)
        return fail_at(ErrorCode::damaged, size->at, fmt::format("the directory is said to have {} bytes, its records take {}",
                                                                 grouped(size->number), grouped(table_end_ - table_at_)));
    if (const auto* crc = header_.with(Meaning::table_crc32)) {
        SKIVET_TRY(const auto table, slice(file, table_at_, table_end_ - table_at_));
        if (crc32(table) != crc->number)
            return fail_at(ErrorCode::damaged, crc->at, fmt::format("directory: CRC-32 is {:08x}, the header says {:08x}", crc32(table), crc->number),
                           "The archive is damaged or was changed by a program that does not know its checksums");
    }
    std::sort(starts_.begin(), starts_.end());
    return {};
}

Result<ByteSpan> SheetContainer::packed(ByteSpan file, std::size_t entry) const {
    SKIVET_TRY(const auto method, method_of(records_[entry]));
    (void)method;
    return slice(file, entries_[entry].at, entries_[entry].stored);
}

Result<Bytes> SheetContainer::unpack(ByteSpan data, std::size_t entry, const ReadLimits& limits) const {
    const auto& e = entries_[entry];
    Bytes out;
    if (e.method == "deflate") {
        SKIVET_TRY(out, inflate(data, e.size, limits));
    } else {
        if (e.size != e.stored) return fail_at(ErrorCode::damaged, e.at, fmt::format("stored, but {} bytes became {}", grouped(e.size), grouped(e.stored)));
        if (e.size > limits.inflated_bytes) return fail_at(ErrorCode::limit, e.at, human_bytes(e.size) + " are more than the limit");
        out.assign(data.begin(), data.end());
    }
    if (const auto* crc = records_[entry].with(Meaning::data_crc32)) {
        const auto sum = crc32(crc->field->of_stored ? data : ByteSpan(out));
        if (sum != crc->number)
            return fail_at(ErrorCode::damaged, e.at, fmt::format("CRC-32 is {:08x}, the directory says {:08x}", sum, crc->number),
                           "The entry is damaged; other entries can still be used");
    }
    return out;
}

Result<Bytes> SheetContainer::read(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(const auto file, file_.bytes());
    auto data = packed(file, entry);
    if (!data) return fail(in_entry(*this, entry, std::move(data).error()));
    auto out = unpack(*data, entry, limits);
    if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
    return out;
}

Result<Bytes> SheetContainer::read_head(std::size_t entry, std::size_t count) const {
    SKIVET_TRY(const auto file, file_.bytes());
    auto data = packed(file, entry);
    if (!data) return fail(in_entry(*this, entry, std::move(data).error()));
    if (entries_[entry].method == "deflate")
        return inflate_prefix(*data, static_cast<std::size_t>(std::min<std::uint64_t>(count, entries_[entry].size)));
    const auto head = data->first(std::min(count, data->size()));
    return Bytes(head.begin(), head.end());
}

std::uint64_t SheetContainer::room(std::size_t entry) const {
    const auto at = entries_[entry].at;
    for (std::size_t i = 0; i < entries_.size(); ++i)
        if (i != entry && entries_[i].stored > 0 && entries_[i].at < at + std::max<std::uint64_t>(1, entries_[entry].stored) &&
            at < entries_[i].at + entries_[i].stored)
            return 0;
    const auto next = std::upper_bound(starts_.begin(), starts_.end(), at);
    return next == starts_.end() ? 0 : *next - at;
}

Result<WritePlan> SheetContainer::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    SKIVET_TRY(const auto file, file_.bytes());
    FilePlan plan;
    plan.new_size = file_.size();
    plan.way = Way::in_place;
    Bytes table(file.begin() + static_cast<std::ptrdiff_t>(table_at_), file.begin() + static_cast<std::ptrdiff_t>(table_end_));
    const auto set_in_table = [&](const RecordValues& record, Meaning meaning, std::uint64_t number) -> Status {
        const auto* value = record.with(meaning);
        if (!value) return {};
        SKIVET_TRY(const auto bytes, field_bytes(*sheet_, *value->field, number));
        std::copy(bytes.begin(), bytes.end(), table.begin() + static_cast<std::ptrdiff_t>(value->at - table_at_));
        return {};
    };
    bool changed = false;
    for (const auto& replacement : replacements) {
        const auto entry = replacement.entry;
        if (entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
        const auto& e = entries_[entry];
        const auto named = [&](Error error) { return fail(in_entry(*this, entry, std::move(error))); };
        auto old = packed(file, entry);
        if (!old) return named(std::move(old).error());
        if (const auto now = unpack(*old, entry, limits); now && *now == replacement.bytes) continue;
        changed = true;
        const auto stored = e.method == "deflate" ? deflate(replacement.bytes) : replacement.bytes;
        auto at = e.at;
        const bool last = e.at + e.stored == file.size() && plan.new_size == file.size();
        if (stored.size() <= room(entry) || (last && room(entry) > 0)) {
            plan.ranges.push_back({at, stored, 0});
            if (stored.size() < e.stored)  // nothing of the old content stays behind
                plan.ranges.push_back({at + stored.size(), Bytes(static_cast<std::size_t>(e.stored - stored.size()), sheet_->fill), 0});
            plan.new_size = std::max(plan.new_size, at + stored.size());
            if (stored.size() > e.stored && last) plan.way = Way::append;
        } else {
            at = (plan.new_size + sheet_->align - 1) / sheet_->align * sheet_->align;
            if (at > plan.new_size) plan.ranges.push_back({plan.new_size, Bytes(static_cast<std::size_t>(at - plan.new_size), sheet_->fill), 0});
            plan.ranges.push_back({at, stored, 0});
            plan.new_size = at + stored.size();
            plan.way = Way::append;
        }
        const auto& record = records_[entry];
        for (const auto& [meaning, number] : {std::pair{Meaning::data_offset, at}, std::pair{Meaning::stored_size, std::uint64_t{stored.size()}},
                                              std::pair{Meaning::size, std::uint64_t{replacement.bytes.size()}}})
            if (auto done = set_in_table(record, meaning, number); !done) return named(std::move(done).error());
        if (const auto* crc = record.with(Meaning::data_crc32))
            if (auto done = set_in_table(record, Meaning::data_crc32, crc32(crc->field->of_stored ? stored : replacement.bytes)); !done)
                return named(std::move(done).error());
    }
    if (!changed) return WritePlan{};
    const auto set_in_header = [&](Meaning meaning, std::uint64_t number) -> Status {
        const auto* value = header_.with(meaning);
        if (!value) return {};
        SKIVET_TRY(auto bytes, field_bytes(*sheet_, *value->field, number));
        plan.ranges.push_back({value->at, std::move(bytes), 0});
        return {};
    };
    SKIVET_CHECK(set_in_header(Meaning::table_crc32, crc32(table)));
    SKIVET_CHECK(set_in_header(Meaning::file_size, plan.new_size));
    plan.ranges.push_back({table_at_, std::move(table), 0});
    return finish_plan(file_, std::move(plan));
}

std::vector<Segment> SheetContainer::segments() const {
    std::vector<Segment> used = {{Segment::What::table, sheet_->header_at, header_.end - sheet_->header_at, 0},
                                 {Segment::What::table, table_at_, table_end_ - table_at_, 0}};
    for (std::size_t i = 0; i < entries_.size(); ++i) used.push_back({Segment::What::entry, entries_[i].at, entries_[i].stored, i});
    return with_gaps(std::move(used), file_.size());
}

namespace {

class SheetKindOf final : public ContainerKind {
public:
    explicit SheetKindOf(std::shared_ptr<const Sheet> sheet) : sheet_(std::move(sheet)) {}
    std::string name() const override { return sheet_->name; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t file_size, std::string_view path) const override {
        auto reason = skivet::recognize(*sheet_, head, file_size, path);
        if (!reason) return std::nullopt;
        return Recognized{ranks::sheet + static_cast<int>(sheet_->recognize.size()), std::move(*reason)};
    }
    Result<std::shared_ptr<const Container>> open(const Kinds& kinds, FileView file) const override {
        auto opened = SheetContainer::open(std::move(file), sheet_, kinds.limits);
        if (!opened) return fail(std::move(opened).error().within(fmt::format("sheet \"{}\"", sheet_->name)));
        return std::shared_ptr<const Container>(std::move(*opened));
    }

private:
    std::shared_ptr<const Sheet> sheet_;
};

}  // namespace

std::shared_ptr<const ContainerKind> sheet_kind(std::shared_ptr<const Sheet> sheet) { return std::make_shared<SheetKindOf>(std::move(sheet)); }

}  // namespace skivet
