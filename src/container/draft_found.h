#pragma once
// What has been found out about an archive nobody described: the table, where entries lie, how they are packed and hidden, what the header
// says. Written as a sheet by draft_write.cpp.
#include "base/keys.h"
#include "container/draft_sheet.h"
#include "container/draft_table.h"

namespace skivet::draft {

/// A column with a meaning, as it is written into the sheet.
struct Meant {
    Column column;
    std::string name, words;  ///< words: `means = "size"` and what else belongs to it
};

/// What a key that is found is called: after the archive, so that drafts of several do not share one name, and never as another key that is
/// in the ring already. `part`: "table", "file" or nothing.
[[nodiscard]] std::string key_name(const KeyRing& ring, const std::filesystem::path& archive, std::string_view part, const Bytes& key);

struct Found {
    Found(const ReadContext& c, const FileView& v, ByteSpan whole, ByteSpan with_tables, const std::map<std::string, FileView>& beside,
          Table t, DataFiles data, Placed p)
        : context(c),
          view(v),
          file(whole),
          tables(with_tables),
          data_files(beside),
          table(std::move(t)),
          files(std::move(data)),
          placed(std::move(p)) {}

    const ReadContext& context;
    const FileView& view;
    ByteSpan file;    ///< the archive
    ByteSpan tables;  ///< the same with what hides its tables taken off
    const std::map<std::string, FileView>& data_files;

    Table table;
    DataFiles files;
    Placed placed;

    std::optional<NameRun> names;       ///< names that lie apart from the records
    std::optional<Column> name_offset;  ///< … found by this column, counted from the first one; nothing: they are in order
    std::uint64_t name_base = 0;        ///< what such an offset counts from

    Bytes key;                       ///< hides each entry, from its own first byte on
    Bytes table_key;                 ///< … and the records, from the first one on
    std::vector<Meant> meant;        ///< of a record, but for offset and size
    std::string packing_words;       ///< for [data], when all entries are packed alike
    bool has_size = false;           ///< a column says unpacked sizes
    std::optional<Packing> stream;   ///< all entries are such streams, and nothing says their unpacked size
    bool proved_by_content = false;  ///< entries unpack to just what is said, or agree with their checksums
    std::string doubt;               ///< why what entries hold cannot be right

    std::uint64_t header_bytes = 0;
    std::uint64_t header_at = 0;  ///< not 0: it stands behind the tables, at the end of the file
    std::vector<Meant> header;
    bool names_cut = false;               ///< the records end within the first name
    unsigned count_before = 0;            ///< bytes of a number right before the records that says how many there are
    bool counted = false;                 ///< it does, or the header
    bool pointed = false;                 ///< … and where the table is
    std::uint64_t unnamed_in_header = 0;  ///< bytes of it that are not zero and have no meaning
    std::vector<std::string> notes;

    [[nodiscard]] Key data_key() const { return {key_name(*context.keys, view.path(), "", key), key}; }
    [[nodiscard]] Key records_key() const { return {key_name(*context.keys, view.path(), "table", table_key), table_key}; }
    [[nodiscard]] bool named() const { return table.form != NameForm::none || names.has_value(); }
    [[nodiscard]] bool hashed() const { return !meant.empty() && meant.front().name == "name_hash"; }
    /// The bytes of an entry as they are stored, without what hides them.
    [[nodiscard]] std::optional<Bytes> stored(std::size_t record) const;
    /// Entries a guess is tried on.
    [[nodiscard]] std::vector<std::size_t> samples() const;
    /// Whether these bytes of a record have no meaning yet.
    [[nodiscard]] bool is_free(const Column& column) const;
    [[nodiscard]] std::uint64_t number(const Column& column, std::size_t record) const { return column.of(tables, table, record); }
};

/// The names apart that belong to the records, if there are some.
void find_names(Found& found, const std::vector<NameRun>& runs, const Places& places);
/// Without names a column that may be a hash of them, among those nothing else explains.
void find_hash(Found& found);
/// A short key that hides every entry.
void find_data_key(Found& found);
/// How entries are packed, their unpacked sizes and checksums; or what speaks against all of it.
void find_contents(Found& found);
/// Counts, places and sizes in the header.
void find_header(Found& found);

/// Keys by which a file's bytes may be hidden, as they stand from the file's first byte on: short ones that make its commonest bytes zero.
[[nodiscard]] std::vector<Bytes> likely_keys(ByteSpan file);

/// `holds`: the tables explain every byte, which tells files of this kind where no mark does.
[[nodiscard]] std::string write_sheet(const Found& found, const std::string& name, bool holds = false);
/// A wrapper sheet for a file that is hidden as a whole.
[[nodiscard]] std::string write_wrapper(ByteSpan file, const std::string& name, const std::string& key_name);

}  // namespace skivet::draft
