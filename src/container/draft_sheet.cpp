#include "container/draft_sheet.h"

#include <fmt/format.h>
#include <algorithm>
#include <set>

#include "base/text.h"
#include "container/draft_table.h"
#include "container/sheet_try.h"

namespace skivet {
namespace {

using draft::Column;
using draft::DataFiles;
using draft::NameForm;
using draft::Placed;
using draft::Table;

namespace fs = std::filesystem;

constexpr std::size_t most_samples = 24;          // entries a guess is tried on: enough that a wrong packing does not pass by chance
constexpr std::uint64_t sample_bytes = 4u << 20;  // of each
constexpr std::size_t most_header = 64;           // bytes before the table in which counts and offsets are looked for
constexpr std::uint64_t tried_bytes = 64u << 20;  // read through the finished draft before it is shown

/// A column with a meaning, as it is written into the sheet.
struct Meant {
    Column column;
    std::string name, words;  ///< words: `means = "size"` and what else belongs to it
};

std::string_view type_of(unsigned width) { return width == 1 ? "u8" : width == 2 ? "u16" : width == 8 ? "u64" : "u32"; }

class Drafter {
public:
    Drafter(const ReadContext& context, const FileView& file, ByteSpan bytes, const Progress& progress)
        : context_(context), view_(file), file_(bytes), progress_(progress) {}

    Result<SheetDraft> draft() {
        find_data_files();
        std::optional<SheetDraft> best;
        unsigned tried = 0;
        const auto named = draft::tables_with_names(file_);
        for (const auto& table : named) {
            SKIVET_CHECK(progress_.cancel.check());
            if (++tried > 100) break;
            SKIVET_CHECK(consider(table, best));
            if (best && best->unsound.empty() && best->unexplained * 20 < file_.size()) break;
        }
        if (!best || best->unexplained * 2 > file_.size())
            for (const auto& table : draft::tables_of_numbers(file_)) {
                SKIVET_CHECK(progress_.cancel.check());
                SKIVET_CHECK(consider(table, best));
                if (best && best->unsound.empty() && best->unexplained * 20 < file_.size()) break;
            }
        if (!best)
            return fail(ErrorCode::unsupported,
                        "no table of entries could be found: no run of equal records has offsets and sizes that fit this file",
                        "Sifting may find textures in it all the same");
        return std::move(*best);
    }

private:
    const ReadContext& context_;
    const FileView& view_;
    ByteSpan file_;
    const Progress& progress_;
    std::vector<DataFiles> data_files_;  ///< the archive itself first
    std::map<std::string, FileView> opened_;

    std::uint64_t budget_ = 20'000'000;

    // What is found out about one table
    Table table_;
    DataFiles files_;
    Placed placed_;
    std::vector<Meant> meant_;
    std::string packing_words_;  ///< for [data], when all entries are packed alike
    bool has_size_ = false;
    std::optional<Packing> stream_;  ///< all entries are such streams, and nothing says their unpacked size
    std::uint64_t header_end_ = 0;   ///< bytes of the header
    std::uint64_t header_at_ = 0;    ///< not 0: it stands behind the table, at the end of the file
    std::vector<Meant> header_;
    std::vector<std::string> notes_;

    /// Numbered files that share the archive's stem, and single ones with another ending.
    void find_data_files() {
        DataFiles own;
        own.sizes[0] = file_.size();
        data_files_.push_back(std::move(own));
        if (view_.in_memory()) return;
        const auto path = view_.path();
        const auto stem = path.stem().string();
        const auto folder = path.parent_path().empty() ? fs::path(".") : path.parent_path();
        std::map<std::string, DataFiles> groups;
        std::error_code code;
        for (const auto& item : fs::directory_iterator(folder, code)) {
            const auto name = item.path().filename().string();
            if (!item.is_regular_file(code) || !name.starts_with(stem) || item.path().filename() == path.filename()) continue;
            const auto rest = name.substr(stem.size());
            const auto digit = rest.find_first_of("0123456789");
            DataFiles one;
            std::uint64_t number = 0;
            if (digit == std::string::npos) {
                one.pattern = "{stem}" + rest;
            } else {
                auto end = rest.find_first_not_of("0123456789", digit);
                if (end == std::string::npos) end = rest.size();
                if (end - digit > 9) continue;
                number = std::stoull(rest.substr(digit, end - digit));
                one.numbered = true;
                one.pattern = "{stem}" + rest.substr(0, digit) +
                              (rest[digit] == '0' && end - digit > 1 ? fmt::format("{{number:{}}}", end - digit) : "{number}") +
                              rest.substr(end);
            }
            auto& group = groups.try_emplace(one.pattern, one).first->second;
            group.sizes[number] = item.file_size(code);
            opened_.try_emplace(fmt::format("{}/{}", one.pattern, number), FileView::of({}));
            if (auto view = FileView::open(item.path())) opened_[fmt::format("{}/{}", one.pattern, number)] = *view;
        }
        for (auto& [pattern, group] : groups) data_files_.push_back(std::move(group));
    }

    std::optional<ByteSpan> stored(std::size_t record) const {
        const auto begin = placed_.begin(file_, table_, record), size = placed_.size.of(file_, table_, record);
        if (files_.pattern.empty()) {
            const auto bytes = slice(file_, begin, size);
            return bytes ? std::optional(*bytes) : std::nullopt;
        }
        const auto number = placed_.number ? placed_.number->of(file_, table_, record) : files_.sizes.begin()->first;
        const auto found = opened_.find(fmt::format("{}/{}", files_.pattern, number));
        if (found == opened_.end()) return std::nullopt;
        const auto bytes = found->second.bytes(begin, size);
        return bytes ? std::optional(*bytes) : std::nullopt;
    }

    /// Numbers of the header an offset may count from: the end of the table, and what the header itself says.
    std::vector<std::uint64_t> bases(const Table& table) const {
        std::vector<std::uint64_t> out = {0};
        if (table.form == NameForm::none) {
            out.push_back(table.end);
            return out;
        }
        out.push_back(table.end);
        for (std::size_t at = 4; at + 4 <= std::min<std::size_t>(file_.size(), most_header); at += 4)
            for (const auto order : {ByteOrder::little, ByteOrder::big}) {
                const auto v = load_uint(file_.data() + at, 4, order);
                if (v > table.end && v < file_.size() && std::find(out.begin(), out.end(), v) == out.end()) out.push_back(v);
                if (out.size() >= 8) return out;
            }
        return out;
    }

    Status consider(const Table& table, std::optional<SheetDraft>& best) {
        for (const auto& files : data_files_) {
            const auto placed =
                draft::place_entries(file_, table, files, files.pattern.empty() ? bases(table) : std::vector<std::uint64_t>{0}, budget_);
            if (!placed) continue;
            table_ = table;
            files_ = files;
            placed_ = *placed;
            meant_.clear();
            header_.clear();
            notes_.clear();
            packing_words_.clear();
            has_size_ = false;
            stream_.reset();
            if (table.form == NameForm::none && !find_hash()) continue;
            find_packing();
            find_streams();
            find_sums();
            find_header();
            if (auto tried = try_out(); tried && tried->readable > 0) {
                const auto value = [](const SheetDraft& d) {
                    return std::tuple(d.unsound.empty(), d.readable == d.looked_at, ~d.unexplained, d.readable);
                };
                if (!best || value(*tried) > value(*best)) best = std::move(*tried);
            }
        }
        return {};
    }

    bool free_for(const Column& column) const {
        const auto apart = [&](const Column& other) { return column.at + column.width <= other.at || other.at + other.width <= column.at; };
        return column.at + column.width <= table_.numbers && apart(placed_.offset) && apart(placed_.size) &&
               (!placed_.number || apart(*placed_.number)) &&
               std::all_of(meant_.begin(), meant_.end(), [&](const auto& m) { return apart(m.column); });
    }

    /// Without names there must be something that tells entries apart: numbers that all differ may be hashes of their names.
    bool find_hash() {
        for (const unsigned width : {8u, 4u})
            for (std::uint64_t at = 0; at + width <= table_.numbers; at += 4) {
                const Column column{at, width, placed_.offset.order};
                if (!free_for(column)) continue;
                std::set<std::uint64_t> all;
                bool large = false;
                std::size_t readable = 0;  // four or eight letters are a piece of a name
                for (std::size_t i = 0; i < table_.count(); ++i) {
                    const auto v = column.of(file_, table_, i);
                    all.insert(v);
                    unsigned signs = 0;
                    for (unsigned b = 0; b < width; ++b) {
                        const auto c = static_cast<unsigned char>(v >> 8 * b);
                        signs += c == 0 ||
                                 (c < 128 && (std::isalnum(c) || c == '_' || c == '.' || c == '/' || c == '\\' || c == '-' || c == ' '));
                    }
                    readable += signs == width;
                    large |= v > (width == 8 ? 1ull << 40 : 1ull << 24);
                }
                if (all.size() < table_.count() || !large || readable * 4 > table_.count()) continue;
                meant_.push_back({column, "name_hash", "means = \"path hash\""});
                notes_.push_back(fmt::format("names are known only by a hash of {} bytes; which one is a guess", width));
                return true;
            }
        return false;
    }

    std::vector<std::size_t> samples() const {
        std::vector<std::size_t> out;
        const auto n = table_.count(), step = std::max<std::size_t>(1, n / most_samples);
        for (std::size_t i = 0; i < n && out.size() < most_samples; i += step)
            if (const auto size = placed_.size.of(file_, table_, i); size > 0 && size <= sample_bytes) out.push_back(i);
        return out;
    }

    /// How each sample is packed when this column is its unpacked size; nothing when it is not.
    std::optional<std::map<std::size_t, Packing>> packed_to(const Column& column, const std::vector<std::size_t>& some) const {
        std::map<std::size_t, Packing> out;
        for (std::size_t i = 0; i < table_.count(); ++i) {
            const auto packed = placed_.size.of(file_, table_, i), unpacked = column.of(file_, table_, i);
            if (unpacked > context_.limits.inflated_bytes || (unpacked == 0) != (packed == 0) || unpacked > packed * 1100 + 64)
                return std::nullopt;
        }
        for (const auto i : some) {
            const auto data = stored(i);
            if (!data) return std::nullopt;
            const auto size = column.of(file_, table_, i);
            if (size == data->size()) {
                out[i] = Packing::none;
                continue;
            }
            std::vector<Packing> tries;
            if (const auto known = packing_at(*data)) tries.push_back(*known);
            tries.insert(tries.end(), {Packing::deflate, Packing::lz4_block});
            const auto fits = std::find_if(tries.begin(), tries.end(),
                                           [&](auto packing) { return unpack(packing, *data, size, context_.limits).has_value(); });
            if (fits == tries.end()) return std::nullopt;
            out[i] = *fits;
        }
        return out;
    }

    /// The numbers of a column, when each stands for one way of packing.
    std::optional<std::map<std::uint64_t, Packing>> methods_by(const Column& column, const std::map<std::size_t, Packing>& packed) const {
        std::map<std::uint64_t, Packing> out;
        for (const auto& [record, packing] : packed)
            if (const auto [at, fresh] = out.try_emplace(column.of(file_, table_, record), packing); !fresh && at->second != packing)
                return std::nullopt;
        for (std::size_t i = 0; i < table_.count(); ++i)
            if (!out.contains(column.of(file_, table_, i))) return std::nullopt;
        return out.size() <= 6 ? std::optional(out) : std::nullopt;
    }

    void find_packing() {
        const auto some = samples();
        const auto order = placed_.offset.order;
        for (const unsigned width : {4u, 8u})
            for (std::uint64_t at = 0; at + width <= table_.numbers && !has_size_; ++at) {
                const Column column{at, width, order};
                if (!free_for(column)) continue;
                const auto packed = packed_to(column, some);
                if (!packed) continue;
                std::set<Packing> ways;
                for (const auto& [record, packing] : *packed) ways.insert(packing);
                if (ways.size() == 1 && *ways.begin() != Packing::none) {
                    packing_words_ = fmt::format("method = \"{}\"\n", name_of(*ways.begin()));
                } else if (ways.size() > 1) {
                    std::optional<Meant> method;
                    for (std::uint64_t m = 0; m < table_.numbers && !method; ++m) {
                        const Column by{m, 1, order};
                        if (!free_for(by) || (m < column.at + column.width && m + 1 > column.at)) continue;
                        const auto methods = methods_by(by, *packed);
                        if (!methods) continue;
                        std::string values;
                        for (const auto& [number, packing] : *methods)
                            values += fmt::format("{}{} = \"{}\"", values.empty() ? "" : ", ", number,
                                                  packing == Packing::none ? "stored" : name_of(packing));
                        method = Meant{by, "packed_as", fmt::format("means = \"method\", values = {{ {} }}", values)};
                    }
                    if (!method) continue;  // what tells packed entries from others must be somewhere
                    meant_.push_back(*method);
                }
                meant_.push_back({column, "bytes", "means = \"size\""});
                has_size_ = true;
                if (ways.size() > 1 || *ways.begin() != Packing::none)
                    notes_.push_back(fmt::format("entries are packed with {}", name_of(*ways.rbegin())));
            }
    }

    /// Streams that end where the entry ends need no unpacked size.
    void find_streams() {
        if (has_size_) return;
        std::optional<Packing> all;
        const auto some = samples();
        for (const auto i : some) {
            const auto data = stored(i);
            const auto packing = data ? packing_at(*data) : std::nullopt;
            if (!packing || (all && *all != *packing)) return;
            all = packing;
            const auto stream = unpack_stream(*packing, *data, context_.limits.inflated_bytes);
            if (!stream || stream->packed_size != data->size()) return;
        }
        if (!all || some.size() < 2) return;
        stream_ = all;
        packing_words_ = fmt::format("method = \"{}\"\n", name_of(*all));
        notes_.push_back(fmt::format("entries are packed with {}", name_of(*all)));
    }

    void find_sums() {
        const auto some = samples();
        if (some.empty()) return;
        for (const auto kind : {SumKind::crc32, SumKind::adler32, SumKind::fnv1a32, SumKind::xxh32})
            for (const bool packed : {false, true}) {
                std::vector<std::pair<std::size_t, std::uint64_t>> sums;
                for (const auto i : some) {
                    const auto data = stored(i);
                    const auto content = !data || packed ? std::optional<Bytes>() : content_of(i, *data);
                    if (!data || (!packed && !content)) return;
                    sums.emplace_back(i, sum_number(kind, packed ? *data : ByteSpan(*content)));
                    if (sums.size() == 8) break;
                }
                for (std::uint64_t at = 0; at + 4 <= table_.numbers; ++at) {
                    const Column column{at, 4, placed_.offset.order};
                    if (!free_for(column) || !std::all_of(sums.begin(), sums.end(), [&](const auto& s) {
                            return column.of(file_, table_, s.first) == (s.second & 0xFFFFFFFFu);
                        }))
                        continue;
                    constexpr std::string_view names[] = {"crc32", "adler32", "fnv1a32", "", "xxh32"};
                    meant_.push_back({column, "sum",
                                      fmt::format("means = \"checksum\", kind = \"{}\", of = \"{}\"", names[static_cast<std::size_t>(kind)],
                                                  packed ? "stored" : "unpacked")});
                    notes_.push_back("a checksum of each entry");
                    return;
                }
            }
    }

    /// The unpacked content, as far as it has been found out how.
    std::optional<Bytes> content_of(std::size_t record, ByteSpan data) const {
        if (stream_) {
            auto out = unpack(*stream_, data, std::nullopt, context_.limits);
            return out ? std::optional(std::move(*out)) : std::nullopt;
        }
        const auto size = std::find_if(meant_.begin(), meant_.end(), [](const auto& m) { return m.name == "bytes"; });
        if (size == meant_.end() || size->column.of(file_, table_, record) == data.size()) return Bytes(data.begin(), data.end());
        std::vector<Packing> tries;
        if (const auto known = packing_at(data)) tries.push_back(*known);
        tries.insert(tries.end(), {Packing::deflate, Packing::lz4_block});
        for (const auto packing : tries)
            if (auto out = unpack(packing, data, size->column.of(file_, table_, record), context_.limits)) return std::move(*out);
        return std::nullopt;
    }

    void find_header() {
        std::uint64_t first_data = file_.size();
        if (files_.pattern.empty())
            for (std::size_t i = 0; i < table_.count(); ++i)
                if (placed_.size.of(file_, table_, i) > 0) first_data = std::min(first_data, placed_.begin(file_, table_, i));
        const auto room = std::min({first_data, table_.at, std::uint64_t{file_.size()}});
        header_at_ = room < 4 && table_.end + 8 <= file_.size() && file_.size() - table_.end <= 256 ? table_.end : 0;
        const bool behind = table_.at <= 4096 && table_.at <= first_data;  // the table follows the header
        header_end_ = header_at_ ? file_.size() - header_at_ : behind ? table_.at : std::min<std::uint64_t>(room, most_header);
        const auto look = std::min<std::uint64_t>(header_end_, most_header);
        const auto add = [&](std::uint64_t value, const char* name, const std::string& words, unsigned least) {
            for (const auto order : {placed_.offset.order, placed_.offset.order == ByteOrder::little ? ByteOrder::big : ByteOrder::little})
                for (unsigned width = 4; width >= least; width /= 2)
                    for (std::uint64_t at = header_at_ ? 0 : width == 4 ? 4 : 2; at + width <= look; at += header_at_ ? 1 : width) {
                        const Column column{at, width, order};
                        const auto taken = [&](const Meant& m) { return at < m.column.at + m.column.width && m.column.at < at + width; };
                        if (load_uint(file_.data() + header_at_ + at, width, order) != value ||
                            std::any_of(header_.begin(), header_.end(), taken))
                            continue;
                        header_.push_back({column, name, words});
                        return true;
                    }
            return false;
        };
        const bool counted = add(table_.count(), "entries", "means = \"entry count\"", 2);
        const bool pointed = !behind && add(table_.at, "table", "means = \"table offset\"", 4);
        if (table_.end > table_.at) add(table_.end - table_.at, "table_bytes", "means = \"table size\"", 4);
        add(file_.size(), "file_bytes", "means = \"file size\"", 4);
        const auto records = file_.subspan(static_cast<std::size_t>(table_.at), static_cast<std::size_t>(table_.end - table_.at));
        for (const auto& [kind, name] : {std::pair{SumKind::crc32, "crc32"}, std::pair{SumKind::adler32, "adler32"}})
            if (add(sum_number(kind, records), "table_sum", fmt::format("means = \"checksum\", kind = \"{}\", of = \"table\"", name), 4))
                break;
        if (placed_.base > 0) add(placed_.base, "data", "", 4);
        if (!counted) notes_.push_back("the number of entries is not in the header; the example's is written down");
        if (!behind && !pointed) notes_.push_back("no header field says where the table is; the example's place is written down");
        std::sort(header_.begin(), header_.end(), [](const auto& a, const auto& b) { return a.column.at < b.column.at; });
        if (!behind && !header_at_) {
            // The header ends behind the last field that means something; data may begin right there.
            std::uint64_t end = std::min<std::uint64_t>(4, room);
            for (const auto& h : header_) end = std::max(end, h.column.at + h.column.width);
            header_end_ = std::min(std::max<std::uint64_t>(end, std::min<std::uint64_t>(8, room)), room);
        }
    }

    static void pad(std::string& out, std::uint64_t from, std::uint64_t to) {
        while (from < to) {
            const auto width = from % 4 == 0 && to - from >= 4 ? 4 : 1;
            out += fmt::format("  {{ name = \"unknown_{}\", type = \"{}\" }},\n", from, type_of(static_cast<unsigned>(width)));
            from += static_cast<std::uint64_t>(width);
        }
    }

    std::string write(const std::string& sheet_name) const {
        const auto big = placed_.offset.order == ByteOrder::big;
        std::string out = "# Drafted from an example. What is called unknown keeps its bytes.\n";
        for (const auto& note : notes_) out += "# " + note + ".\n";
        out +=
            fmt::format("sheet = \"container\"\nname = \"{}\"\nbyte_order = \"{}\"\n\n[[recognize]]\n", sheet_name, big ? "big" : "little");
        const auto first = header_at_ ? 0 : header_.empty() ? header_end_ : header_.front().column.at;
        const auto mark = std::clamp<std::uint64_t>(std::min<std::uint64_t>(first, header_end_), 0, 8) / 4 * 4;
        const auto has_mark = mark >= 4 && std::any_of(file_.begin(), file_.begin() + static_cast<std::ptrdiff_t>(mark),
                                                       [](auto b) { return b != std::byte{0}; });
        if (header_at_) {  // the last four bytes are the mark
            out += "at = -4\nbytes = \"";
            for (std::size_t i = file_.size() - 4; i < file_.size(); ++i) out += fmt::format("{:02x} ", static_cast<unsigned>(file_[i]));
            out += "\"\n";
        } else if (has_mark) {
            out += "bytes = \"";
            for (std::size_t i = 0; i < mark; ++i) out += fmt::format("{}{:02x}", i ? " " : "", static_cast<unsigned>(file_[i]));
            out += "\"\n";
        } else {
            out += fmt::format("name = \"*{}\"\n", view_.path().extension().string().empty() ? view_.path().filename().string()
                                                                                             : view_.path().extension().string());
        }
        if (std::any_of(header_.begin(), header_.end(), [](const auto& h) { return h.name == "file_bytes"; }))
            out += "\n[[recognize]]\nfile_size = \"file_bytes\"\n";
        if (header_end_ > 0) {
            out += header_at_ ? fmt::format("\n[header]\nat = -{}\nfields = [\n", header_end_) : "\n[header]\nfields = [\n";
            std::uint64_t at = 0;
            if (has_mark) out += fmt::format("  {{ name = \"mark\", type = \"bytes\", size = {} }},\n", at = mark);
            for (const auto& h : header_) {
                pad(out, at, h.column.at);
                const auto foreign = h.column.width > 1 && h.column.order != placed_.offset.order
                                         ? fmt::format(", order = \"{}\"", big ? "little" : "big")
                                         : std::string();
                out += fmt::format("  {{ name = \"{}\", type = \"{}\"{}{}{} }},\n", h.name, type_of(h.column.width), foreign,
                                   h.words.empty() ? "" : ", ", h.words);
                at = h.column.at + h.column.width;
            }
            if (header_end_ - at > 64) out += fmt::format("  {{ name = \"rest\", type = \"bytes\", size = {} }},\n", header_end_ - at);
            else pad(out, at, header_end_);
            out += "]\n";
        }
        out += write_record();
        if (!packing_words_.empty() || !files_.pattern.empty() || alignment() > 1) out += "\n[data]\n";
        if (alignment() > 1) out += fmt::format("align = {}\n", alignment());
        out += packing_words_;
        if (!files_.pattern.empty()) out += fmt::format("file = \"{}\"\n", files_.pattern);
        if (table_.form == NameForm::none)
            out += fmt::format("\n[hash]\nkind = \"{}\"\n", meant_.front().column.width == 8 ? "fnv1a64" : "crc32");
        return out;
    }

    /// The largest power of two (at most 64 KB) at whose multiples all entries begin.
    std::uint64_t alignment() const {
        std::uint64_t all = 65536;
        for (std::size_t i = 0; i < table_.count(); ++i) all |= placed_.begin(file_, table_, i);
        return all & (~all + 1);
    }

    std::string write_record() const {
        std::string out = "\n[record]\n";
        const auto has = [&](std::string_view name) {
            return std::any_of(header_.begin(), header_.end(), [&](const auto& h) { return h.name == name; });
        };
        if (!has("table") && (header_at_ || table_.at != header_end_)) out += fmt::format("at = {}\n", table_.at);
        if (!has("entries")) out += fmt::format("count = {}\n", table_.count());
        out += "fields = [\n";
        std::string name;
        switch (table_.form) {
            case NameForm::fixed:
                name = fmt::format("  {{ name = \"path\", type = \"text\", size = {}, means = \"path\" }},\n", table_.name_bytes);
                break;
            case NameForm::prefixed:
                name =
                    fmt::format("  {{ name = \"path\", type = \"text\", length = \"{}\"{}, means = \"path\" }},\n", type_of(table_.prefix),
                                table_.prefix > 1 && table_.order != placed_.offset.order
                                    ? fmt::format(", order = \"{}\"", table_.order == ByteOrder::big ? "big" : "little")
                                    : "");
                break;
            case NameForm::terminated: name = "  { name = \"path\", type = \"text\", length = \"until zero\", means = \"path\" },\n"; break;
            case NameForm::none: break;
        }
        std::vector<Meant> columns = meant_;
        std::string offset = "means = \"data offset\"";
        if (placed_.unit > 1) offset += fmt::format(", unit = {}", placed_.unit);
        if (placed_.base > 0) offset += has("data") ? ", base = \"data\"" : fmt::format(", base = {}", placed_.base);
        columns.push_back({placed_.offset, "at", offset});
        columns.push_back({placed_.size, "stored", "means = \"stored size\""});
        if (placed_.number) columns.push_back({*placed_.number, "file", "means = \"file number\""});
        std::sort(columns.begin(), columns.end(), [](const auto& a, const auto& b) { return a.column.at < b.column.at; });
        if (!table_.leads) out += name;
        std::uint64_t at = 0;
        for (const auto& c : columns) {
            pad(out, at, c.column.at);
            out += fmt::format("  {{ name = \"{}\", type = \"{}\"{}, {} }},\n", c.name, type_of(c.column.width),
                               c.column.width > 1 && c.column.order != placed_.offset.order
                                   ? fmt::format(", order = \"{}\"", c.column.order == ByteOrder::big ? "big" : "little")
                                   : "",
                               c.words);
            at = c.column.at + c.column.width;
        }
        pad(out, at, table_.numbers);
        if (table_.leads) out += name;
        return out + "]\n";
    }

    std::optional<SheetDraft> try_out() {
        SheetDraft out;
        out.toml = write(view_.path().stem().string().empty() ? "Draft" : view_.path().stem().string() + " (draft)");
        auto sheet = parse_sheet(out.toml, "draft");
        if (!sheet) return std::nullopt;
        const auto trial = try_sheet(context_, std::make_shared<Sheet>(std::move(*sheet)), view_, 0, tried_bytes);
        if (!trial) return std::nullopt;
        out.entries = trial->entries;
        out.looked_at = trial->looked_at;
        out.readable = trial->readable;
        out.unexplained = trial->unexplained + trial->padding;
        out.found =
            fmt::format("{} records of {} and {} bytes of numbers at {}; offsets and sizes that cover {} of {}", grouped(table_.count()),
                        table_.form == NameForm::none ? "no name" : "a name", table_.numbers, hex(table_.at), human_bytes(placed_.covered),
                        files_.pattern.empty() ? view_.path().filename().string() : files_.pattern);
        for (const auto& note : notes_) out.found += "; " + note;
        std::size_t filled = 0;
        std::uint64_t held = 0;
        for (std::size_t i = 0; i < table_.count(); ++i) {
            const auto size = placed_.size.of(file_, table_, i);
            filled += size > 0;
            held += size;
        }
        std::set<std::string> names(trial->names.begin(), trial->names.end());
        if (out.readable < out.looked_at)
            out.unsound = fmt::format("of the likeliest table's {} entries that were looked at only {} can be read", grouped(out.looked_at),
                                      grouped(out.readable));
        else if (filled < 2 || filled * 4 < table_.count())
            out.unsound = fmt::format("{} of the likeliest table's {} entries are empty, so nothing shows that it is one",
                                      grouped(table_.count() - filled), grouped(table_.count()));
        else if (names.size() * 2 < trial->names.size())
            out.unsound = fmt::format("the likeliest table's {} entries have only {} different names", grouped(trial->names.size()),
                                      grouped(names.size()));
        else if (files_.pattern.empty() && out.unexplained * 4 > file_.size() * 3)
            out.unsound = fmt::format("the likeliest table explains only {} of {} bytes", grouped(file_.size() - out.unexplained),
                                      grouped(file_.size()));
        if (!out.unsound.empty()) out.toml = "# Not sound, only a place to begin: " + out.unsound + ".\n" + out.toml;
        return out;
    }
};

}  // namespace

Result<SheetDraft> draft_sheet(const ReadContext& context, const FileView& file, const Progress& progress) {
    SKIVET_TRY(const auto bytes, file.bytes());
    if (bytes.size() < 32) return fail(ErrorCode::unsupported, "a file of " + grouped(bytes.size()) + " bytes is too small for a table");
    return Drafter(context, file, bytes, progress).draft();
}

}  // namespace skivet
