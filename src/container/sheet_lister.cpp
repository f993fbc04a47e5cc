#include "container/sheet_lister.h"

#include <algorithm>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/sheet_gaps.h"
#include "sheet/method.h"

namespace skivet {

using namespace sheet_gaps;

namespace {

/// Of records that go on until something ends them.
constexpr std::uint64_t unknown_count = ~0ull;
/// So many records may be read again for other folders, whatever the file's size.
constexpr std::uint64_t shared_records = 10'000;

}  // namespace

Status SheetContainer::Lister::list() {
    SKIVET_TRY(image_, out_.file_.bytes());
    auto header = read_header(sheet_, image_, limits_);
    if (!header) return fail(std::move(header).error().within("header"));
    out_.header_ = std::move(*header);
    out_.tables_.push_back({"header", out_.header_.at, out_.header_.values.end});
    SKIVET_CHECK(load_dictionary());
    SKIVET_CHECK(open_table());
    if (!sheet_.folders.fields.empty()) SKIVET_CHECK(read_folders());
    // Names may lie behind the records, but their place must be known before the first record is read.
    if (sheet_.names && sheet_.names->at.from != Place::From::after_record) SKIVET_CHECK(read_names());
    if (sheet_.names && sheet_.names->at.from == Place::From::after_record) {
        const auto size = sheet_.record.fixed_size();
        if (!size) return fail(ErrorCode::unsupported, "names behind records of varying size need a header field that says where they are");
        SKIVET_TRY(const auto count, number_of(sheet_.record_count, "entry"));
        if (count == unknown_count)
            return fail(ErrorCode::unsupported, "names behind records without a count need a header field that says where they are");
        SKIVET_TRY(auto start, place(sheet_.record_at, "directory"));
        start += sheet_.counted;
        if (start > image_.size()) return fail_at(ErrorCode::damaged, start, "the directory is said to begin behind the end");
        if (*size > 0 && count > (image_.size() - start) / *size)
            return fail_at(ErrorCode::damaged, start,
                           phrase("{} records of {} bytes do not lie in {} bytes", grouped(count), *size, grouped(image_.size())));
        records_end_ = start + (count + (sheet_.ends == Sheet::Ends::next_record ? 1 : 0)) * *size;
        SKIVET_CHECK(read_names());
    }
    SKIVET_CHECK(read_records());
    SKIVET_TRY(const auto file, out_.file_.bytes());
    return out_.check_table_sums(file, image_);
}

Result<std::uint64_t> SheetContainer::Lister::place(const Place& place, std::string_view what) const {
    std::uint64_t at = place.offset;
    switch (place.from) {
        case Place::From::start: break;
        case Place::From::end:
            if (place.offset > image_.size())
                return fail(ErrorCode::damaged,
                            phrase("{}: {} bytes before the end of {} bytes", said(what), place.offset, grouped(image_.size())));
            at = image_.size() - place.offset;
            break;
        case Place::From::field: {
            const auto* value = out_.header_.values.named(place.field);
            at = value->number + out_.base_of(*value->field, value->at);
            break;
        }
        case Place::From::after_header: at = out_.header_.values.end; break;
        case Place::From::after_record: at = records_end_; break;
        case Place::From::after_folders: at = folders_end_; break;
        case Place::From::after_names: at = names_.end; break;
        case Place::From::in_folder: at = folders_end_; break;
        case Place::From::behind_record: break;
    }
    if (at > image_.size())
        return fail_at(ErrorCode::damaged, at, phrase("{} is said to be behind the end of {} bytes", said(what), grouped(image_.size())));
    // What begins where the packed directory begins is in it.
    if (out_.packed_end_ > 0 && at == out_.packed_at_) return out_.file_.size();
    return at;
}

Result<std::uint64_t> SheetContainer::Lister::number_of(const CountOf& count, std::string_view what) const {
    auto n = unknown_count;
    if (count.by == CountOf::By::number) n = count.number;
    if (count.by == CountOf::By::counted) {
        SKIVET_TRY(const auto at, place(sheet_.record_at, what));
        const auto bytes = slice(image_, at, sheet_.counted);
        if (!bytes) return fail(Error(bytes.error()).within("count"));
        n = load_uint(bytes->data(), sheet_.counted, out_.header_.order);
        if (n > limits_.entries || n > image_.size())
            return fail_at(ErrorCode::damaged, at, phrase("{} entries in {} bytes", grouped(n), grouped(image_.size())));
    }
    if (count.by == CountOf::By::field) {
        const auto* value = out_.header_.values.named(count.field);
        n = value->number;
        // A record takes at least one byte, so a count beyond the file's size is damage; checked before memory is taken.
        if (n > limits_.entries || n > image_.size())
            return fail_at(ErrorCode::damaged, value->at,
                           phrase("{} {} in {} bytes", grouped(n),
                                  what == "entry"   ? said("entries")
                                  : what == "chunk" ? said("chunks")
                                                    : said("folders"),
                                  grouped(image_.size())));
    }
    return n;
}

/// Finds the table, takes the encryption off and unpacks it.
Status SheetContainer::Lister::open_table() {
    const bool packed = !sheet_.table_method.empty();
    if (!sheet_.table_crypt && !packed) return {};
    SKIVET_TRY(const auto at, place(sheet_.record_at, "directory"));
    auto end = out_.header_.at > at ? out_.header_.at : static_cast<std::uint64_t>(image_.size());
    if (const auto* size = out_.header_.values.with(packed ? Meaning::table_stored_size : Meaning::table_size)) {
        if (size->number > end - at)
            return fail_at(ErrorCode::damaged, size->at,
                           phrase("the directory is said to have {} bytes, only {} are there", grouped(size->number), grouped(end - at)));
        end = at + size->number;
    } else if (const auto fixed = sheet_.record.fixed_size(); fixed && !packed) {
        SKIVET_TRY(const auto count, number_of(sheet_.record_count, "entry"));
        const auto records = count + (sheet_.ends == Sheet::Ends::next_record ? 1 : 0);
        if (count != unknown_count && *fixed > 0 && records <= (end - at) / *fixed) end = at + records * *fixed;
    }
    const auto in_directory = [](Error error) { return fail(std::move(error).within("directory")); };
    auto bytes = image_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(end - at));
    Bytes plain(bytes.begin(), sheet_.table_crypt ? bytes.end() : bytes.begin());
    if (sheet_.table_crypt) {
        const auto key = sheet_data::key_for(*sheet_.table_crypt, *out_.keys_, out_.header_.values, image_);
        if (!key) return in_directory(key.error());
        auto decrypted = sheet_data::decrypt(*sheet_.table_crypt, {*key, sheet_.table_crypt->iv, at}, bytes);
        if (!decrypted) return in_directory(std::move(decrypted).error());
        plain = std::move(*decrypted);
        bytes = plain;
    }
    if (!packed) {
        const Overlay over{at, plain};
        SKIVET_TRY(out_.image_, out_.file_.with(std::span(&over, 1), out_.file_.size()));
        out_.table_at_ = at;
        out_.table_end_ = end;
    } else {
        const auto method = *method_named(sheet_, sheet_.table_method);
        const auto* size = out_.header_.values.with(Meaning::table_size);
        auto limits = limits_;
        limits.inflated_bytes = limits_.directory_bytes;
        if (out_.header_.values.with(Meaning::table_stored_size)) {
            auto unpacked = unpack_by(method, bytes, size ? std::optional(size->number) : std::nullopt, limits, *out_.packers_);
            if (!unpacked) return in_directory(std::move(unpacked).error());
            plain = std::move(*unpacked);
        } else {
            auto stream = unpack_stream(method.packing, bytes, limits.inflated_bytes);
            if (!stream) return in_directory(std::move(stream).error());
            plain = std::move(stream->bytes);
            end = at + stream->packed_size;
        }
        out_.packed_at_ = at;
        out_.packed_end_ = end;
        out_.tables_.push_back({"entries", at, end});
        // The image has it behind the file's end.
        const auto file_size = out_.file_.size();
        const Overlay over{file_size, plain};
        SKIVET_TRY(out_.image_, out_.file_.with(std::span(&over, 1), file_size + plain.size()));
        out_.table_at_ = file_size;
        out_.table_end_ = file_size + plain.size();
    }
    SKIVET_TRY(image_, out_.image_.bytes());
    return {};
}

Status SheetContainer::Lister::read_folders() {
    SKIVET_TRY(auto at, place(sheet_.folders_at, "folders"));
    if (sheet_.record_at.from == Place::From::in_folder) {  // each folder's record stands before its entries
        folders_end_ = at;
        return {};
    }
    const auto start = at;
    SKIVET_TRY(const auto count, number_of(sheet_.folders_count, "folder"));
    for (std::uint64_t i = 0; i < count && at < image_.size(); ++i) {
        RecordValues folder;
        if (auto read = read_record(sheet_.folders, out_.header_.order, image_, at, limits_, folder); !read)
            return fail(std::move(read).error().within(phrase("folder {}", i + 1)));
        at = folder.end;
        if (sheet_.folders_count.by == CountOf::By::terminator &&
            folder.named(sheet_.folders_count.field)->number == sheet_.folders_count.number &&
            folder.named(sheet_.folders_count.field)->text.empty())
            break;
        if (folders_.size() >= limits_.entries) return fail(ErrorCode::limit, "too many folders");
        folders_.push_back(std::move(folder));
    }
    if (sheet_.folders_count.by != CountOf::By::terminator && sheet_.folders_count.by != CountOf::By::to_end && folders_.size() < count)
        return fail_at(ErrorCode::damaged, at, phrase("{} folders are said to be there, {} are", grouped(count), grouped(folders_.size())));
    folders_end_ = at;
    out_.folders_at_ = start;
    out_.folders_end_ = at;
    out_.tables_.push_back({"folders", start, at});
    return {};
}

bool SheetContainer::Lister::terminates() const {
    if (sheet_.record_count.by != CountOf::By::terminator) return false;
    const auto* value = record_.named(sheet_.record_count.field);
    return value->field->type == FieldType::text ? value->text.empty() : value->number == sheet_.record_count.number;
}

Status SheetContainer::Lister::add_entry(std::uint64_t record_at, const std::string& folder,
                                         const std::map<std::string, std::string>* words) {
    if (out_.entries_.size() >= limits_.entries) return fail(ErrorCode::limit, phrase("more than {} entries", grouped(limits_.entries)));
    ++records_;
    const bool deleted = record_.number(Meaning::deleted) != 0;
    Entry e;
    Item item;
    item.record_at = record_at;
    if (!deleted) {
        SKIVET_TRY(e.path, path_of(folder, words));
    }
    const auto* stored = record_.with(Meaning::stored_size);
    const auto* size = record_.with(Meaning::size);
    item.stored = stored ? stored->number : size && sheet_.ends == Sheet::Ends::by_size ? size->number : 0;
    if (stored && stored->number == 0 && sheet_.packed == Sheet::Packed::stored_not_zero) item.stored = size->number;
    if (const auto* end = record_.with(Meaning::data_end)) {
        const auto& offset = *record_.with(Meaning::data_offset);
        if (end->number >= offset.number) item.stored = end->number - offset.number;
        else if (!deleted)
            return fail_at(ErrorCode::damaged, end->at,
                           phrase("is said to begin at {} and to end at {}", grouped(offset.number), grouped(end->number)));
    }
    last_stored_ = item.stored;
    if (const auto* offset = record_.with(Meaning::data_offset)) {
        // Where a section ends is known once all of it has been read.
        item.data_at = offset->number + out_.base_of(*offset->field, offset->at);
        if (offset->field->base_section) item.data_at -= out_.end_of(*offset->field->base_section);
        if (sheet_.ends != Sheet::Ends::by_size) starts_.push_back(item.data_at);
    } else if (sheet_.data_at->from == Place::From::behind_record) {
        item.data_at = record_.end;
    }
    if (!sheet_.data_file.empty())
        item.file = sheet_.part_size > 0
                        ? 0
                        : static_cast<std::uint32_t>(std::min<std::uint64_t>(record_.number(Meaning::file_number), 0xFFFFFFFEu));
    if (deleted) {
        out_.deleted_.push_back({item.file, item.data_at, item.stored});
        return {};
    }
    if (is_marker(e.path)) return {};
    for (auto outer = open_folders_.rbegin(); outer != open_folders_.rend(); ++outer) e.path = *outer + '/' + e.path;
    item.method = method_named(sheet_, sheet_.method.empty() || has_stream(sheet_) ? "stored" : sheet_.method);
    if (const auto* method = record_.with(Meaning::method)) {
        const auto name = named_value(*method);
        item.method = name ? method_named(sheet_, *name) : std::nullopt;
    }
    const auto* encrypted = record_.with(Meaning::encrypted);
    item.encrypted = sheet_.crypt && (!encrypted || encrypted->number != 0);
    // A name and its hash side by side: the game looks for the hash.
    if (const auto* hash = record_.with(Meaning::path_hash);
        hash && sheet_.hash && !e.path.starts_with('#') && out_.problems_.size() < 1000)
        if (const auto right = path_hash(*sheet_.hash, hash->field->width, e.path); right != hash->number)
            out_.problems_.push_back({ErrorCode::damaged,
                                      phrase("the hash of its name is {:0{}x}, the field says {:0{}x}", right, 2 * hash->field->width,
                                             hash->number, 2 * hash->field->width),
                                      {e.path},
                                      hash->at,
                                      "The game looks entries up by the hash and will not find this one"});
    out_.entries_.push_back(std::move(e));
    out_.items_.push_back(item);
    if (sheet_.ends != Sheet::Ends::by_size) record_of_.push_back(starts_.size() - 1);
    settle(out_.items_.size() - 1, &record_);
    return {};
}

Status SheetContainer::Lister::read_arrays(std::uint64_t& at, std::uint64_t count) {
    const auto size = *sheet_.record.fixed_size();
    const auto values = count + (sheet_.ends == Sheet::Ends::next_record ? 1 : 0);
    out_.array_at_ = at;
    out_.array_count_ = values;
    for (std::uint64_t i = 0; i < values; ++i) {
        auto read = read_array_record(sheet_.record, out_.header_.order, image_, at, i, values, limits_, record_);
        if (read && i == count) {
            out_.closing_ = *record_.with(Meaning::data_offset);
            break;
        }
        if (read) read = add_entry(i, {}, nullptr);
        if (!read) return fail(std::move(read).error().within(phrase("entry {}", out_.entries_.size() + 1)).within("directory"));
    }
    at += values * size;
    return {};
}

Status SheetContainer::Lister::read_run(std::uint64_t& at, std::uint64_t count, const std::string& folder) {
    const auto end = out_.table_end_ > at   ? out_.table_end_
                     : out_.header_.at > at ? out_.header_.at
                                            : static_cast<std::uint64_t>(image_.size());
    const bool inlined = sheet_.data_at && sheet_.data_at->from == Place::From::behind_record;
    for (std::uint64_t i = 0; i < count; ++i) {
        if (count == unknown_count && at >= end) break;
        // Records that no folder shares take at least their own bytes.
        if (++visited_ > shared_records + 2 * image_.size() / std::max<std::uint64_t>(1, sheet_.record.fixed_size().value_or(1)))
            return fail_at(ErrorCode::limit, at, phrase("the folders share more than {} entries", grouped(out_.entries_.size())),
                           "The folders' counts are damaged, or the sheet takes something else for them");
        const auto start = at;
        auto read = read_record(sheet_.record, out_.header_.order, image_, at, limits_, record_);
        if (read) at = record_.end;
        if (read && inlined) out_.tables_.push_back({"record", start, at});
        if (read && terminates()) break;
        if (read) read = add_entry(start, folder, nullptr);
        if (read && inlined) {
            // The next record stands behind the data.
            if (last_stored_ > image_.size() - at)
                read =
                    fail_at(ErrorCode::damaged, at, phrase("needs {} bytes, has {}", grouped(last_stored_), grouped(image_.size() - at)));
            else at = std::min<std::uint64_t>(aligned(at + last_stored_, sheet_.align), image_.size());
        }
        if (!read) return fail(std::move(read).error().within(phrase("entry {}", out_.entries_.size() + 1)).within("directory"));
    }
    if (sheet_.ends == Sheet::Ends::next_record) {
        if (auto read = read_record(sheet_.record, out_.header_.order, image_, at, limits_, record_); !read)
            return fail(std::move(read).error().within("the last record").within("directory"));
        out_.closing_ = *record_.with(Meaning::data_offset);
        at = record_.end;
    }
    return {};
}

Status SheetContainer::Lister::read_tree(std::uint64_t& at, std::size_t level, std::map<std::string, std::string>& words) {
    for (;;) {
        auto word = name_at(at);
        if (!word) return fail(std::move(word).error().within(phrase("entry {}", out_.entries_.size() + 1)).within("tree"));
        at += word->size() + 1;
        if (word->empty()) return {};
        if (*word == sheet_.tree->empty) word->clear();
        words[sheet_.tree->levels[level]] = std::move(*word);
        if (level + 1 < sheet_.tree->levels.size()) {
            SKIVET_CHECK(read_tree(at, level + 1, words));
            continue;
        }
        const auto start = at;
        auto read = read_record(sheet_.record, out_.header_.order, image_, at, limits_, record_);
        if (read) at = record_.end;
        if (read) read = add_entry(start, {}, &words);
        if (!read) return fail(std::move(read).error().within(phrase("entry {}", out_.entries_.size() + 1)).within("tree"));
    }
}

Status SheetContainer::Lister::read_records() {
    const auto in_folders = sheet_.record_at.from == Place::From::in_folder;
    SKIVET_TRY(auto at, place(sheet_.tree ? sheet_.tree->at : in_folders ? sheet_.folders_at : sheet_.record_at, "directory"));
    out_.table_at_ = at;
    const auto stated = out_.header_.values.with(Meaning::table_size);
    if (out_.table_end_ == 0 && stated && stated->number <= image_.size() - at) out_.table_end_ = at + stated->number;
    const auto folder_name = [&](const RecordValues& folder) -> Result<std::string> {
        if (const auto* name = folder.with(Meaning::folder)) return name->text;
        if (const auto* offset = folder.with(Meaning::name_offset)) return name_at(names_.at + offset->number);
        return std::string();
    };
    const auto first = at;
    if (sheet_.tree) {
        std::map<std::string, std::string> words;
        SKIVET_CHECK(read_tree(at, 0, words));
    } else if (in_folders) {
        SKIVET_TRY(const auto count, number_of(sheet_.folders_count, "folder"));
        for (std::uint64_t i = 0; i < count && at < image_.size(); ++i) {
            RecordValues folder;
            if (auto read = read_record(sheet_.folders, out_.header_.order, image_, at, limits_, folder); !read)
                return fail(std::move(read).error().within(phrase("folder {}", i + 1)));
            at = folder.end;
            const auto entries = folder.number(Meaning::entry_count);
            if (entries > image_.size())
                return fail_at(ErrorCode::damaged, folder.with(Meaning::entry_count)->at,
                               phrase("{} entries in {} bytes", grouped(entries), grouped(image_.size())));
            SKIVET_TRY(const auto name, folder_name(folder));
            SKIVET_CHECK(read_run(at, entries, name));
        }
    } else if (!folders_.empty()) {
        auto end = at;
        for (const auto& folder : folders_) {
            const auto entries = folder.number(Meaning::entry_count);
            if (entries > image_.size())
                return fail_at(ErrorCode::damaged, folder.with(Meaning::entry_count)->at,
                               phrase("{} entries in {} bytes", grouped(entries), grouped(image_.size())));
            const auto* offset = folder.with(Meaning::entries_offset);
            if (offset) {
                at = offset->number + out_.base_of(*offset->field, offset->at);
                out_.folder_offsets_.push_back(*offset);
            } else if (const auto* index = folder.with(Meaning::first_entry)) {
                const auto size = sheet_.record.fixed_size();
                if (!size) return fail(ErrorCode::unsupported, "a first entry by number needs records of a fixed size");
                if (index->number > image_.size())
                    return fail_at(ErrorCode::damaged, index->at, phrase("a first entry {}", grouped(index->number)));
                at = first + index->number * *size;
            }
            SKIVET_TRY(const auto name, folder_name(folder));
            const auto start = at;
            SKIVET_CHECK(read_run(at, entries, name));
            if (offset) out_.tables_.push_back({"entries", start, at});  // each folder's own, wherever it lies
            else end = std::max(end, at);
        }
        at = end;
    } else {
        SKIVET_TRY(const auto count, number_of(sheet_.record_count, "entry"));
        at += sheet_.counted;
        SKIVET_CHECK(sheet_.record.arrays ? read_arrays(at, count) : read_run(at, count, {}));
    }
    const bool nothing_else = !sheet_.names && sheet_.folders.fields.empty();
    if (stated && (nothing_else ? stated->number != at - first : first + stated->number < at) &&
        sheet_.record_count.by != CountOf::By::terminator)
        return fail_at(ErrorCode::damaged, stated->at,
                       phrase("the directory is said to have {} bytes, its records take {}", grouped(stated->number), grouped(at - first)));
    if (sheet_.data_at && sheet_.data_at->from == Place::From::behind_record) {
        // Each record is a table of its own, with a count before the first one.
        if (sheet_.counted > 0) out_.tables_.push_back({"count", first, first + sheet_.counted});
        out_.table_end_ = first;
    } else {
        if (out_.table_end_ < at) out_.table_end_ = at;
        if (out_.table_end_ > first) out_.tables_.push_back({"entries", first, out_.table_end_});
    }
    if (sheet_.names && !sheet_.names->size_field.empty()) {
        out_.tables_.push_back({"names", names_.at, names_.end});
    } else if (sheet_.names && names_.used > 0 && names_.last - names_.first <= names_.used) {
        // Nothing says how long they are, but they lie side by side. Scattered ones explain only where they begin.
        out_.tables_.push_back({"names", names_.first, names_.last});
        out_.names_end_ = names_.end = names_.last;
    } else if (sheet_.names) {
        out_.tables_.push_back({"names", names_.at, names_.at});
    }
    records_end_ = out_.table_end_;
    if (has_stream(sheet_)) SKIVET_CHECK(read_chunks());
    return find_extents();
}

}  // namespace skivet
