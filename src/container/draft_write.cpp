// What the header says of a table that was found, and all of it as a sheet.
#include <fmt/format.h>
#include <algorithm>

#include "base/phrase.h"
#include "base/text.h"
#include "container/draft_found.h"

namespace skivet::draft {
namespace {

constexpr std::uint64_t most_header = 256;  // bytes in which counts and places are looked for

std::string_view type_of(unsigned width) { return width == 1 ? "u8" : width == 2 ? "u16" : width == 8 ? "u64" : "u32"; }

void pad(std::string& out, std::uint64_t from, std::uint64_t to) {
    while (from < to) {
        const auto width = from % 4 == 0 && to - from >= 4 ? 4u : 1u;
        out += fmt::format("  {{ name = \"unknown_{}\", type = \"{}\" }},\n", from, type_of(width));
        from += width;
    }
}

std::string hex_words(ByteSpan bytes) {
    std::string out;
    for (const auto b : bytes) out += fmt::format("{}{:02x}", out.empty() ? "" : " ", static_cast<unsigned>(b));
    return out;
}

/// ", order = …" where a number's order is not the sheet's.
std::string foreign(unsigned width, ByteOrder order, ByteOrder usual) {
    return width > 1 && order != usual ? fmt::format(", order = \"{}\"", order == ByteOrder::big ? "big" : "little") : std::string();
}

class Writer {
public:
    Writer(const Found& found, std::string name, bool holds)
        : f_(found), name_(std::move(name)), holds_(holds), usual_(found.placed.order()) {}

    std::string write() {
        out_ = "# " + said("Drafted from an example. What is called unknown keeps its bytes.") + "\n";
        for (const auto& note : f_.notes) out_ += "# " + note + ".\n";
        out_ +=
            fmt::format("sheet = \"container\"\nname = \"{}\"\nbyte_order = \"{}\"\n", name_, usual_ == ByteOrder::big ? "big" : "little");
        recognize();
        header();
        record();
        data();
        return std::move(out_);
    }

private:
    const Found& f_;
    std::string name_;
    bool holds_;
    ByteOrder usual_;
    std::string out_;

    [[nodiscard]] bool has(std::string_view name) const {
        return std::any_of(f_.header.begin(), f_.header.end(), [&](const auto& h) { return h.name == name; });
    }
    /// Bytes at the beginning of the header that tell files of this kind.
    [[nodiscard]] std::uint64_t mark() const {
        if (f_.header_at > 0) return 0;
        const auto first = f_.header.empty() ? f_.header_bytes : f_.header.front().column.at;
        const auto n = std::min<std::uint64_t>({first, f_.header_bytes, 8}) / 4 * 4;
        const auto some =
            std::any_of(f_.file.begin(), f_.file.begin() + static_cast<std::ptrdiff_t>(n), [](auto b) { return b != std::byte{0}; });
        return some ? n : 0;
    }

    void recognize() {
        out_ += "\n[[recognize]]\n";
        const auto n = static_cast<std::size_t>(mark());
        const auto ending = f_.view.path().extension().string();
        if (n > 0) out_ += fmt::format("bytes = \"{}\"\n", hex_words(f_.file.first(n)));
        else if (f_.header_at > 0) out_ += fmt::format("at = -4\nbytes = \"{}\"\n", hex_words(f_.file.last(4)));
        else out_ += fmt::format("name = \"*{}\"\n", ending.empty() ? f_.view.path().filename().string() : ending);
        if (n == 0 && f_.header_at == 0 && holds_) out_ += "\n[[recognize]]\ntables = \"hold\"\n";
        if (has("file_bytes")) out_ += "\n[[recognize]]\nfile_size = \"file_bytes\"\n";
    }

    void header() {
        if (f_.header_bytes == 0) return;
        out_ += f_.header_at > 0 ? fmt::format("\n[header]\nat = -{}\nfields = [\n", f_.header_bytes) : "\n[header]\nfields = [\n";
        std::uint64_t at = mark();
        if (at > 0) out_ += fmt::format("  {{ name = \"mark\", type = \"bytes\", size = {} }},\n", at);
        for (const auto& h : f_.header) {
            pad(out_, at, h.column.at);
            out_ += fmt::format("  {{ name = \"{}\", type = \"{}\"{}{}{} }},\n", h.name, type_of(h.column.width),
                                foreign(h.column.width, h.column.order, usual_), h.words.empty() ? "" : ", ", h.words);
            at = h.column.at + h.column.width;
        }
        if (f_.header_bytes - at > 64) out_ += fmt::format("  {{ name = \"rest\", type = \"bytes\", size = {} }},\n", f_.header_bytes - at);
        else pad(out_, at, f_.header_bytes);
        out_ += "]\n";
    }

    /// The name in each record, if there is one.
    [[nodiscard]] std::string name_field() const {
        const auto& t = f_.table;
        switch (t.form) {
            case NameForm::fixed:
                return fmt::format("  {{ name = \"path\", type = \"text\", size = {}, means = \"path\" }},\n", t.name_bytes);
            case NameForm::prefixed:
                return fmt::format("  {{ name = \"path\", type = \"text\", length = \"{}\"{}, means = \"path\" }},\n", type_of(t.prefix),
                                   foreign(t.prefix, t.order, usual_));
            case NameForm::terminated: return "  { name = \"path\", type = \"text\", length = \"until zero\", means = \"path\" },\n";
            case NameForm::none: break;
        }
        return {};
    }

    void record() {
        const auto& t = f_.table;
        const auto& p = f_.placed;
        out_ += "\n[record]\n";
        if (!has("table") && (f_.header_at > 0 || t.at != f_.header_bytes)) out_ += fmt::format("at = {}\n", t.at - f_.count_before);
        if (f_.count_before > 0) out_ += fmt::format("counted = \"{}\"\n", type_of(f_.count_before));
        else if (!has("entries")) {
            out_ += p.chain == Placed::Chain::to_the_end          ? "count = \"until end\"\n"
                    : p.chain == Placed::Chain::to_a_nameless_one ? "until = { field = \"path\" }\n"
                                                                  : fmt::format("count = {}\n", t.count());
        }
        if (p.ends == Placed::Ends::next_record) out_ += "ends = \"next record\"\n";
        if (p.ends == Placed::Ends::next_offset) out_ += "ends = \"next offset\"\n";
        if (!f_.named() && !f_.hashed()) out_ += "path = \"{number:5}\"\n";
        out_ += "fields = [\n";
        std::vector<Meant> columns = f_.meant;
        if (p.offset) {
            std::string offset = "means = \"data offset\"";
            if (p.unit > 1) offset += fmt::format(", unit = {}", p.unit);
            if (p.base > 0) offset += has("data") ? ", base = \"data\"" : fmt::format(", base = {}", p.base);
            columns.push_back({*p.offset, "at", offset});
        }
        if (p.size && p.says == Placed::Says::size) {
            const auto* add = p.counts_itself ? ", add = -4" : "";
            columns.push_back({*p.size, "stored", fmt::format("means = \"stored size\"{}", add)});
        } else if (p.size) {
            const auto* add = p.says == Placed::Says::last ? ", add = 1" : "";
            columns.push_back({*p.size, "end", fmt::format("means = \"data end\"{}", add)});
        }
        if (p.number) columns.push_back({*p.number, "file", "means = \"file number\""});
        if (f_.name_offset) {
            const auto base = f_.names->at - f_.name_base;  // the sheet counts from the first name
            columns.push_back({*f_.name_offset, "name_at", "means = \"name offset\"" + (base > 0 ? fmt::format(", add = -{}", base) : "")});
        }
        std::sort(columns.begin(), columns.end(), [](const auto& a, const auto& b) { return a.column.at < b.column.at; });
        std::uint64_t at = 0;
        const auto name = [&] {
            out_ += name_field();
            if (t.form == NameForm::fixed) at = t.name_at + t.name_bytes;
        };
        const bool fixed = t.form == NameForm::fixed;
        const auto apart = [&] {
            if (t.apart > 0) out_ += fmt::format("  {{ name = \"unknown\", type = \"bytes\", size = {} }},\n", t.apart);
        };
        if (!t.leads && !fixed) apart(), name();
        for (const auto& c : columns) {
            if (fixed && at <= t.name_at && c.column.at > t.name_at) {
                pad(out_, at, t.name_at);
                name();
            }
            pad(out_, at, c.column.at);
            out_ += fmt::format("  {{ name = \"{}\", type = \"{}\"{}, {} }},\n", c.name, type_of(c.column.width),
                                foreign(c.column.width, c.column.order, usual_), c.words);
            at = c.column.at + c.column.width;
        }
        if (fixed && at <= t.name_at) {
            pad(out_, at, t.name_at);
            name();
        }
        pad(out_, at, t.numbers);
        if (t.leads) name(), apart();
        out_ += "]\n";
        if (f_.names) {
            out_ += "\n[names]\n";
            if (has("names")) out_ += "at = \"names\"\n";
            else if (f_.names->at != records_end()) out_ += fmt::format("at = {}\n", f_.names->at);
            if (!f_.name_offset) out_ += "in_order = true\n";
        }
    }

    [[nodiscard]] std::uint64_t records_end() const {
        return f_.table.end + (f_.placed.ends == Placed::Ends::next_record ? f_.table.numbers : 0);
    }

    void data() {
        std::string words;
        if (f_.placed.chain != Placed::Chain::none) {
            words += "at = \"behind record\"\n";
            if (f_.placed.align > 1) words += fmt::format("align = {}\n", f_.placed.align);
        } else if (!f_.placed.offset) {
            const auto first = f_.placed.base;
            words += first == records_end()                                                                 ? "at = \"after record\"\n"
                     : f_.names && first == f_.names->end && !has("names") && f_.names->at == records_end() ? "at = \"after names\"\n"
                     : has("data")                                                                          ? "at = \"data\"\n"
                                   : fmt::format("at = {}\n", first);
        } else if (alignment() > 1 && f_.placed.ends == Placed::Ends::by_size) {
            words += fmt::format("align = {}\n", alignment());
        }
        words += f_.packing_words;
        if (!f_.files.pattern.empty()) words += fmt::format("file = \"{}\"\n", f_.files.pattern);
        if (!words.empty()) out_ += "\n[data]\n" + words;
        if (f_.hashed()) out_ += fmt::format("\n[hash]\nkind = \"{}\"\n", f_.meant.front().column.width == 8 ? "fnv1a64" : "crc32");
        if (!f_.key.empty()) out_ += "\n[encryption]\ncipher = \"xor\"\nkey = \"" + f_.data_key().name + "\"\n";
        if (!f_.table_key.empty()) out_ += "\n[table_encryption]\ncipher = \"xor\"\nkey = \"" + f_.records_key().name + "\"\n";
    }

    /// The largest power of two (at most 64 KB) at whose multiples all entries begin.
    [[nodiscard]] std::uint64_t alignment() const {
        std::uint64_t all = 65536;
        for (const auto begin : f_.placed.begins) all |= begin;
        return all & (~all + 1);
    }
};

/// Where the number of records stands: in the header behind its mark, right before the records, or as the file's first number. One that
/// counts the record that closes the table is one more.
template <class Add, class Here>
bool find_count(Found& f, const Add& add, const Here& here, bool follows) {
    const std::uint64_t n = f.table.count();
    for (const std::uint64_t more : {0, 1}) {
        if (more > 0 && f.placed.ends != Placed::Ends::next_record) break;
        const auto words = std::string("means = \"entry count\"") + (more > 0 ? ", add = -1" : "");
        if (add(n + more, "entries", words, 2)) return true;
        if (f.header_at > 0 || f.placed.chain != Placed::Chain::none) continue;
        for (const unsigned width : {4u, 2u})
            if (here({0, width, f.placed.order()}, n + more, "entries", words)) return true;
        for (const unsigned width : {4u, 2u})
            if (more == 0 && !follows && f.table.at >= f.header_bytes + width &&
                load_uint(f.tables.data() + f.table.at - width, width, f.placed.order()) == n) {
                f.count_before = width;
                return true;
            }
    }
    return false;
}

}  // namespace

void find_header(Found& f) {
    std::uint64_t first = f.file.size(), tables_end = f.table.end;
    if (f.files.pattern.empty())
        for (std::size_t i = 0; i < f.table.count(); ++i)
            if (f.placed.sizes[i] > 0) first = std::min(first, f.placed.begins[i]);
    if (f.placed.ends == Placed::Ends::next_record) tables_end += f.table.numbers;
    auto room = std::min({first, f.table.at, std::uint64_t{f.file.size()}});
    if (f.names) {
        room = std::min(room, f.names->at);
        tables_end = std::max(tables_end, f.names->end);
    }
    f.header_at = room < 4 && tables_end + 8 <= f.file.size() && f.file.size() - tables_end <= most_header ? tables_end : 0;
    const bool behind = f.table.at <= 4096 && f.table.at == room;  // the table follows the header
    const bool in_front = room == first;                           // data does
    f.header_bytes = f.header_at > 0 ? f.file.size() - f.header_at : behind ? f.table.at : std::min(room, most_header);
    const auto look = std::min(f.header_bytes, most_header);
    const auto usual = f.placed.order();
    const auto here = [&](const Column& column, std::uint64_t value, const char* name, const std::string& words) {
        if (column.at + column.width > look || load_uint(f.file.data() + f.header_at + column.at, column.width, column.order) != value ||
            std::any_of(f.header.begin(), f.header.end(), [&](const Meant& m) { return !column.apart(m.column); }))
            return false;
        f.header.push_back({column, name, words});
        return true;
    };
    const auto add = [&](std::uint64_t value, const char* name, const std::string& words, unsigned least) {
        for (const auto order : {usual, usual == ByteOrder::little ? ByteOrder::big : ByteOrder::little})
            for (unsigned width = 4; width >= least; width /= 2)
                for (std::uint64_t at = f.header_at > 0 ? 0 : 2; at + width <= look; at += f.header_at > 0 ? 1 : std::min(width, 2u))
                    if (here({at, width, order}, value, name, words)) return true;
        return false;
    };
    const bool follows = behind && f.table.at == f.header_bytes;
    f.counted = find_count(f, add, here, follows);
    f.pointed = add(f.table.at - f.count_before, "table", "means = \"table offset\"", 4);
    if (f.names && f.names->at != tables_end) add(f.names->at, "names", "", 4);
    const bool chain = f.placed.chain != Placed::Chain::none;
    if (tables_end > f.table.at && !f.names && !chain)
        add(tables_end - f.table.at + f.count_before, "table_bytes", "means = \"table size\"", 4);
    add(f.file.size(), "file_bytes", "means = \"file size\"", 4);
    if (!f.names && !chain) {
        const auto records = f.tables.subspan(static_cast<std::size_t>(f.table.at), static_cast<std::size_t>(tables_end - f.table.at));
        for (const auto& [kind, name] : {std::pair{SumKind::crc32, "crc32"}, std::pair{SumKind::adler32, "adler32"}})
            if (add(sum_number(kind, records), "table_sum", fmt::format("means = \"checksum\", kind = \"{}\", of = \"table\"", name), 4))
                break;
    }
    if (f.placed.base > 0) add(f.placed.base, "data", "", 4);
    if (!f.counted && !chain) f.notes.push_back(said("the number of entries is not in the header; the example's is written down"));
    if (!follows && !f.pointed) f.notes.push_back(said("no header field says where the table is; the example's place is written down"));
    std::sort(f.header.begin(), f.header.end(), [](const auto& a, const auto& b) { return a.column.at < b.column.at; });
    if (in_front && f.header_at == 0) {
        // The header ends behind the last bytes that are something; data may begin right there.
        auto end = std::min<std::uint64_t>(room, most_header);
        while (end > 4 && f.file[static_cast<std::size_t>(end - 1)] == std::byte{0}) --end;
        for (const auto& h : f.header) end = std::max(end, h.column.at + h.column.width);
        f.header_bytes = std::min(std::max<std::uint64_t>((end + 3) / 4 * 4, std::min<std::uint64_t>(8, room)), room);
    }
    for (std::uint64_t at = 0; at < f.header_bytes; ++at)
        f.unnamed_in_header += f.file[static_cast<std::size_t>(f.header_at + at)] != std::byte{0} &&
                               std::none_of(f.header.begin(), f.header.end(),
                                            [&](const Meant& m) { return at >= m.column.at && at < m.column.at + m.column.width; });
}

std::string key_name(const KeyRing& ring, const std::filesystem::path& archive, std::string_view part, const Bytes& key) {
    std::string base;
    for (const unsigned char c : archive.stem().string()) base += c < 0x80 && std::isalnum(c) != 0 ? static_cast<char>(c) : '_';
    if (base.empty()) base = "draft";
    if (!part.empty()) base += ' ' + std::string(part);
    auto name = base;
    for (unsigned next = 2; ring.find(name) && ring.find(name)->bytes != key; ++next) name = fmt::format("{} {}", base, next);
    return name;
}

std::string write_sheet(const Found& found, const std::string& name, bool holds) { return Writer(found, name, holds).write(); }

std::string write_wrapper(ByteSpan file, const std::string& name, const std::string& key_name) {
    return fmt::format(
        "# {}\nsheet = \"wrapper\"\nname = \"{}\"\n\n[[recognize]]\nbytes = \"{}\"\n\n[encryption]\ncipher = \"xor\"\nkey = \"{}\"\n",
        said("Drafted from an example: the whole file is hidden by a key that is repeated."), name,
        hex_words(file.first(std::min<std::size_t>(file.size(), 4))), key_name);
}

}  // namespace skivet::draft
