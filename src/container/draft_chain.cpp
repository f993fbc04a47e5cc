// Records each of which stands in front of its own data: the size in one leads to the next. Nothing points anywhere, but where such a chain
// goes from the first name to the end of the file, nothing else does.
#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "container/draft_table.h"

namespace skivet::draft {
namespace {

constexpr std::uint64_t first_at = 4352;                     // bytes in which the first name begins
constexpr std::size_t most_firsts = 24;                      // of each form of names
constexpr std::uint64_t most_before = 32, most_behind = 96;  // bytes of a record before its name and behind it
constexpr std::uint64_t widest = 400;                        // … of one whose names have a field of one size
constexpr std::uint64_t most_align = 4096, near_align = 64;
constexpr std::uint64_t most_after = 1024;                  // bytes that may follow a record without a name
constexpr std::uint64_t most_name = 260;                    // … of its name
constexpr std::size_t least_records = 4, least_short = 12;  // … where a size has two bytes
constexpr std::size_t most_chains = 8, most_tried = 4, most_inside = 6;
constexpr std::uint64_t most_whole = 96;  // bytes of a header of whole numbers, behind which a name may begin in any case
constexpr std::uint64_t most_steps = 80'000'000, steps_a_byte = 2000;  // a second or two; for a small file less

/// How names are written.
struct Shape {
    NameForm form;
    unsigned prefix = 0;
    ByteOrder order = ByteOrder::little;

    /// Bytes of the field with the name that stands here, 0 for one of a fixed size, which is not known yet; nothing where no name is.
    [[nodiscard]] std::optional<std::uint64_t> field(ByteSpan file, std::uint64_t at) const {
        if (form == NameForm::prefixed) {
            if (at + prefix >= file.size()) return std::nullopt;
            const auto n = load_uint(file.data() + at, prefix, order);
            return n >= 1 && n <= most_name && n <= file.size() - at - prefix && name(file, at + prefix, n) == n ? std::optional(prefix + n)
                                                                                                                 : std::nullopt;
        }
        const auto n = at < file.size() ? name(file, at, std::min<std::uint64_t>(most_name + 1, file.size() - at)) : 0;
        if (n == 0 || n > most_name) return std::nullopt;
        if (form == NameForm::fixed) return 0;
        return at + n < file.size() && file[static_cast<std::size_t>(at + n)] == std::byte{0} ? std::optional(n + 1) : std::nullopt;
    }
    /// How many signs of a name stand here, at most `most`; 0 where it cannot be one: without a letter, or mostly of signs that are none in
    /// plain text. Looked at for every place a size may lead to, so only once.
    [[nodiscard]] static std::uint64_t name(ByteSpan file, std::uint64_t at, std::uint64_t most) {
        static const auto kinds = [] {
            std::array<std::uint8_t, 256> out{};
            for (unsigned c = 0; c < 256; ++c) {
                const auto byte = static_cast<std::byte>(c);
                out[c] = static_cast<std::uint8_t>(name_length(ByteSpan(&byte, 1), 0, 1) == 0 ? 0
                                                   : c >= 0x80                                ? 2
                                                   : (c | 32) >= 'a' && (c | 32) <= 'z'       ? 3
                                                                                              : 1);
            }
            return out;
        }();
        std::uint64_t n = 0, letters = 0, far = 0;
        for (const auto* byte = file.data() + at; n < most; ++n) {
            const auto kind = kinds[static_cast<std::uint8_t>(byte[n])];
            if (kind == 0) break;
            letters += kind == 3;
            far += kind == 2;
        }
        return letters > 0 && far * 3 <= n ? n : 0;
    }
    /// Whether a record without a name stands here.
    [[nodiscard]] bool nameless(ByteSpan file, std::uint64_t at) const {
        const auto bytes = form == NameForm::prefixed ? prefix : 1;
        return at + bytes <= file.size() && load_uint(file.data() + at, bytes, order) == 0;
    }
};

struct Link {
    std::uint64_t name_at, field, size;
    [[nodiscard]] std::uint64_t behind() const { return name_at + field; }
};

/// How the size leads on: it stands `distance` bytes before the name, or behind it; `lead` and `tail` bytes of the record are before and
/// behind the name; what an entry ends with is padded to `align`.
struct Rule {
    Shape shape;
    bool before = false;
    std::uint64_t distance = 0;
    unsigned width = 4;
    ByteOrder order = ByteOrder::little;
    std::uint64_t lead = 0, tail = 0, align = 1;

    [[nodiscard]] std::uint64_t least_lead() const { return before ? distance : 0; }
    [[nodiscard]] std::uint64_t least_tail() const { return before ? 0 : distance + width; }
    [[nodiscard]] std::optional<std::uint64_t> size(ByteSpan file, std::uint64_t name_at, std::uint64_t field) const {
        if (before && name_at < distance) return std::nullopt;
        const auto at = before ? name_at - distance : name_at + field + distance;
        if (at + width > file.size()) return std::nullopt;
        const auto value = load_uint(file.data() + at, width, order);
        return value <= file.size() - at ? std::optional(value) : std::nullopt;
    }
};

std::uint64_t up(std::uint64_t at, std::uint64_t align) { return (at + align - 1) / align * align; }

class Chains {
public:
    Chains(ByteSpan file, const Progress& progress) : file_(file), progress_(progress) {}

    std::vector<Chain> find() {
        std::vector<Shape> shapes;
        for (const unsigned width : {1u, 2u, 4u})
            for (const auto order : {ByteOrder::little, ByteOrder::big})
                if (width > 1 || order == ByteOrder::little) shapes.push_back({NameForm::prefixed, width, order});
        shapes.push_back({NameForm::terminated});
        shapes.push_back({NameForm::fixed});
        std::vector<std::pair<Shape, Link>> firsts;
        for (const auto& shape : shapes) {
            // Headers are mostly whole numbers of four bytes: what stands behind one comes first.
            std::size_t n = 0, inside = 0;
            const auto look = [&](std::uint64_t begin, std::uint64_t end, bool whole) {
                for (auto at = begin; at < std::min<std::uint64_t>(end, file_.size()) && n < most_firsts; ++at) {
                    const auto field = (at % 4 == 0) == whole ? shape.field(file_, at) : std::nullopt;
                    // Three letters are seldom anything else; what begins behind a letter is mostly a part of a name, but for a mark's.
                    if (!field || name_length(file_, at + shape.prefix, 3) < 3) continue;
                    if (shape.form != NameForm::prefixed && follows_sign(at) && (at % 2 != 0 || at > most_whole || ++inside > most_inside))
                        continue;
                    ++n;
                    firsts.push_back({shape, {at, *field, 0}});
                }
            };
            for (const auto begin : {std::uint64_t{0}, most_whole})
                for (const bool whole : {true, false}) look(begin, begin == 0 ? most_whole : first_at, whole);
        }
        const auto likely = [](const Chain& c) { return std::get<2>(c.doubt) * 4 <= c.table.count(); };
        for (const bool padded : {false, true})
            for (const unsigned width : {4u, 8u, 2u})
                for (const auto& [shape, first] : firsts) {
                    if (out_.size() >= (padded ? 2 : 1) * most_chains || steps_ == 0 || progress_.cancel.canceled()) break;
                    if (padded && std::any_of(out_.begin(), out_.end(), likely)) break;
                    from(shape, first, width, padded);
                }
        std::size_t longest = 0;
        for (const auto& chain : out_) longest = std::max(longest, chain.table.count());
        std::erase_if(out_, [&](const Chain& c) { return c.table.count() * 2 < longest; });
        std::stable_sort(out_.begin(), out_.end(), [](const Chain& a, const Chain& b) { return a.doubt < b.doubt; });
        std::erase_if(out_, [least = out_.empty() ? false : std::get<0>(out_.front().doubt)](const Chain& c) {
            return std::get<0>(c.doubt) > least;
        });
        if (out_.size() > most_tried) out_.resize(most_tried);
        return std::move(out_);
    }

private:
    ByteSpan file_;
    const Progress& progress_;
    std::uint64_t steps_ = std::min<std::uint64_t>(most_steps, file_.size() * steps_a_byte);
    std::vector<Chain> out_;
    std::vector<Link> links_;
    bool to_the_end_ = false;
    std::uint64_t end_ = 0;  ///< where the name of a record without one is empty

    [[nodiscard]] bool follows_sign(std::uint64_t at) const {
        return at > 0 && at <= file_.size() && file_[static_cast<std::size_t>(at - 1)] < std::byte{0x80} &&
               name_length(file_, at - 1, 1) == 1;
    }

    /// The size may stand anywhere near the first name.
    void from(const Shape& shape, const Link& first, unsigned width, bool padded) {
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (const bool before : {false, true}) {
                const auto most = before ? std::min(most_before, first.name_at) : most_tail(shape);
                for (std::uint64_t distance = before ? width : 0; distance + (before ? 0 : width) <= most; ++distance) {
                    Rule rule{shape, before, distance, width, order};
                    const auto size = rule.size(file_, first.name_at, first.field);
                    if (size && *size > 0 && (padded ? with_padding(rule, first, *size) : without(rule, first, *size))) return;
                }
            }
    }
    [[nodiscard]] static std::uint64_t most_tail(const Shape& shape) { return shape.form == NameForm::fixed ? widest : most_behind; }
    [[nodiscard]] bool take(std::uint64_t steps = 1) {
        steps_ -= std::min(steps_, steps);
        return steps_ > 0;
    }

    /// Without padding only the sum of what stands before and behind a name matters.
    bool without(Rule& rule, const Link& first, std::uint64_t size) {
        const auto behind = first.behind() + size;
        for (auto sum = rule.least_lead() + rule.least_tail(); sum <= most_tail(rule.shape) + rule.least_lead(); ++sum) {
            if (!take()) return false;
            rule.lead = 0;
            rule.tail = sum;
            if (rule.shape.field(file_, behind + sum) && walk(rule, first.name_at) && keep(rule)) return true;
        }
        return false;
    }

    bool with_padding(Rule& rule, const Link& first, std::uint64_t size) {
        const auto behind = first.behind() + size;
        // Most sizes lead nowhere near a name.
        const auto reach = most_tail(rule.shape) + most_before + near_align;
        bool near = false;
        for (std::uint64_t i = 0; i < reach && !near; ++i) near = rule.shape.field(file_, behind + i).has_value();
        if (!take(reach / 16)) return false;
        // Largest first: what lies at multiples of 64 lies at those of 32, too, and then longer records explain it as well.
        for (rule.align = most_align; rule.align >= (near ? 2 : 2 * near_align); rule.align /= 2)
            for (rule.lead = rule.least_lead() + (first.name_at - rule.least_lead()) % rule.align;
                 rule.lead <= std::min(most_before, first.name_at); rule.lead += rule.align)
                for (rule.tail = rule.least_tail(); rule.tail <= most_tail(rule.shape);) {
                    if (!take()) return false;
                    const auto next = up(behind + rule.tail, rule.align);
                    const auto more = std::min(next - behind, most_tail(rule.shape)) + 1;
                    // Of records that lead to the same place the shortest one behind which only zeros fill up.
                    if (rule.shape.field(file_, next + rule.lead))
                        for (; rule.tail < more; ++rule.tail)
                            if (walk(rule, first.name_at) && keep(rule)) return true;
                    rule.tail = more;
                }
        return false;
    }

    /// Goes from name to name, to the end of the file or a record without a name.
    [[nodiscard]] bool walk(Rule& rule, std::uint64_t at) {
        links_.clear();
        for (;;) {
            const auto field = rule.shape.field(file_, at);
            if (!take(1 + field.value_or(0) / 16)) return false;
            if (!field) {
                to_the_end_ = false;
                end_ = at;
                return links_.size() >= least_records && rule.shape.nameless(file_, at) && file_.size() - at <= most_after + rule.align;
            }
            const auto size = rule.size(file_, at, *field);
            if (!size) return false;
            links_.push_back({at, *field, *size});
            const auto end = links_.back().behind() + *size;
            if (end > file_.size()) return false;
            if (rule.align == 1) {
                const auto left = file_.size() - end;
                // The last one shows how much of the sum stands behind the name.
                if (left <= rule.tail && left >= rule.least_tail() && rule.tail - left >= rule.least_lead() &&
                    rule.tail - left <= links_.front().name_at && links_.size() >= least_records) {
                    rule.lead = rule.tail - left;
                    rule.tail = left;
                    to_the_end_ = true;
                    return true;
                }
                at = end + rule.tail;
            } else {
                if (end + rule.tail > file_.size()) return false;
                const auto padded = std::min<std::uint64_t>(up(end + rule.tail, rule.align), file_.size());
                if (!take((padded - end) / 16)) return false;
                for (auto i = end + rule.tail; i < padded; ++i)
                    if (file_[static_cast<std::size_t>(i)] != std::byte{0}) return false;
                if (padded == file_.size()) {
                    to_the_end_ = true;
                    return links_.size() >= least_records;
                }
                at = padded + rule.lead;
            }
            if (at >= file_.size()) return false;
        }
    }

    /// The chain of the last walk, where it can be said as a table.
    bool keep(const Rule& found) {
        auto rule = found;
        if (rule.align == 1 && !to_the_end_) {
            // What stands behind the name ends the file where the record without a name does. Otherwise nothing shows where the record ends
            // and its data begins: what is before the name is as short as it can be.
            const auto after = file_.size() - end_ - (rule.shape.form == NameForm::fixed ? 0 : std::max(1u, rule.shape.prefix));
            rule.lead = rule.least_lead();
            if (after >= rule.least_tail() && after + rule.lead <= found.tail) rule.lead = found.tail - after;
            rule.tail = found.tail - rule.lead;
        }
        if (links_.front().name_at < rule.lead) return false;
        const auto filled = std::count_if(links_.begin(), links_.end(), [](const Link& l) { return l.size > 0; });
        if (filled < 2 || (rule.width == 2 && links_.size() < least_short)) return false;
        // Text has two signs for a size wherever one looks.
        const auto spelled = [&](const Link& l) {
            const auto at = static_cast<std::size_t>(rule.before ? l.name_at - rule.distance : l.behind() + rule.distance);
            const auto bytes = file_.subspan(at, rule.width);
            return std::all_of(bytes.begin(), bytes.end(), [](std::byte b) {
                return (b >= std::byte{' '} && b <= std::byte{'~'}) || (b >= std::byte{'\t'} && b <= std::byte{'\r'});
            });
        };
        const auto n = static_cast<std::ptrdiff_t>(links_.size());
        if (std::count_if(links_.begin(), links_.end(), spelled) * (rule.width == 2 ? 2 : 1) >= n) return false;
        // Archives are mostly what their entries hold, and records of one size with little data between them, or whose sizes have two
        // bytes, are a table of something else.
        std::uint64_t covered = 0;
        std::map<std::uint64_t, std::ptrdiff_t> times;
        for (const auto& link : links_) covered += link.size, ++times[link.size];
        const auto usual = std::max_element(times.begin(), times.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
        if (covered * 2 < file_.size() - links_.front().name_at) return false;
        if (usual->second * 2 > n && (rule.width == 2 || usual->first <= rule.lead + rule.tail)) return false;
        Chain out;
        auto& t = out.table;
        t.form = rule.shape.form;
        t.prefix = rule.shape.prefix;
        t.order = rule.shape.order;
        t.at = links_.front().name_at - rule.lead;
        t.end = to_the_end_ ? file_.size() : links_.back().behind() + rule.tail + links_.back().size;
        const bool fixed = t.form == NameForm::fixed;
        if (fixed) {
            t.name_at = rule.lead;
            t.name_bytes = fixed_bytes(rule);
            if (t.name_bytes == 0) return false;
            t.numbers = rule.lead + rule.tail;
        } else {
            t.leads = rule.before;
            t.numbers = rule.before ? rule.lead : rule.tail;
            t.apart = rule.before ? rule.tail : rule.lead;
        }
        for (const auto& link : links_) {
            t.numbers_at.push_back(fixed || rule.before ? link.name_at - rule.lead : link.behind());
            out.placed.begins.push_back(link.behind() + rule.tail);
            out.placed.sizes.push_back(link.size);
            out.placed.covered += link.size;
        }
        const auto column = rule.before ? rule.lead - rule.distance : fixed ? rule.lead + rule.distance : rule.distance;
        out.placed.size = Column{column, rule.width, rule.order};
        out.placed.chain = to_the_end_ ? Placed::Chain::to_the_end : Placed::Chain::to_a_nameless_one;
        out.placed.align = rule.align;
        // A byte that is the same in front of all is a number's; one that begins all is, too.
        std::size_t parts = 0;
        if (t.form != NameForm::prefixed) {
            const auto sign = [&](const Link& l, std::uint64_t back) {
                return l.name_at < back ? std::byte{0} : file_[static_cast<std::size_t>(l.name_at - back)];
            };
            const auto same = [&](std::uint64_t back) {
                return std::all_of(links_.begin() + 1, links_.end(), [&](const Link& l) { return sign(l, back) == sign(links_[1], back); });
            };
            if (!same(1))
                for (std::size_t i = 1; i < links_.size(); ++i) parts += follows_sign(links_[i].name_at);
            for (const auto& link : links_) parts += sign(link, 0) >= std::byte{0x80};
            if (same(0) && sign(links_[0], 0) == sign(links_[1], 0)) parts += links_.size();
        }
        // A number that is the same in all, or that rises, is no length of names that go on behind it.
        const auto goes_on = [&](const Link& l) { return follows_sign(l.behind() + 1); };
        if (t.form == NameForm::prefixed &&
            std::is_sorted(links_.begin(), links_.end(), [](const Link& a, const Link& b) { return a.field < b.field; }) &&
            std::count_if(links_.begin(), links_.end(), goes_on) * 2 > static_cast<std::ptrdiff_t>(links_.size()))
            parts += links_.size();
        if (begins_with_mark()) parts += links_.size();
        out.doubt = {parts * 2 > links_.size(), ~links_.size(), parts, t.numbers + t.apart - t.name_bytes};
        // Padding may hide that names have a field of one size.
        out.placed.parts_of_names = std::get<0>(out.doubt) || (t.form == NameForm::terminated && rule.align >= 16 && t.apart > 8);
        out_.push_back(std::move(out));
        return true;
    }

    /// Whether the first name begins with the file, and with four capitals that are no part of it.
    [[nodiscard]] bool begins_with_mark() const {
        const auto is_mark = [](std::byte b) {
            return (b >= std::byte{'A'} && b <= std::byte{'Z'}) || (b >= std::byte{'0'} && b <= std::byte{'9'});
        };
        return links_.front().name_at == 0 && file_.size() > 4 && std::all_of(file_.begin(), file_.begin() + 4, is_mark) &&
               !is_mark(file_[4]);
    }

    /// Bytes of a name's field: up to the first that is something else than the name and zeros in any record; 0 where names leave no room.
    [[nodiscard]] std::uint64_t fixed_bytes(const Rule& rule) const {
        auto most = rule.before ? rule.tail : std::min(rule.tail, rule.distance);
        std::uint64_t longest = 0;
        for (const auto& link : links_) {
            const auto n = name_length(file_, link.name_at, most);
            longest = std::max(longest, n);
            auto end = n;
            while (end < most && file_[static_cast<std::size_t>(link.name_at + end)] == std::byte{0}) ++end;
            most = std::min(most, end);
        }
        if (longest > most) return 0;
        const auto whole = most / 4 * 4;
        return whole >= longest && whole > 0 ? whole : most;
    }
};

}  // namespace

namespace {

/// Sizes in front of data without names, from the first bytes of the file to its last one: many, of which hardly any is zero.
class Nameless {
public:
    explicit Nameless(ByteSpan file) : file_(file) {}

    std::optional<Chain> find() {
        constexpr std::uint64_t longest_header = 32;
        for (std::uint64_t at = 0; at <= longest_header; at += 2)
            for (const auto order : {ByteOrder::little, ByteOrder::big})
                for (const std::uint64_t itself : {0, 4})  // a size may count its own four bytes
                    if (walk(at, order, itself)) return chain(at, order, itself);
        return std::nullopt;
    }

private:
    ByteSpan file_;
    std::vector<std::pair<std::uint64_t, std::uint64_t>> data_;  ///< place and bytes

    [[nodiscard]] bool walk(std::uint64_t at, ByteOrder order, std::uint64_t itself) {
        constexpr std::size_t least = 8;
        data_.clear();
        std::size_t empty = 0;
        std::set<std::uint64_t> sizes;
        const auto start = at;
        while (at + 4 <= file_.size()) {
            const auto said = load_uint(file_.data() + at, 4, order);
            if (said < itself || said - itself > file_.size() - at - 4) return false;
            data_.emplace_back(at + 4, said - itself);
            empty += said == itself;
            if (empty > 4 && empty * 8 > data_.size()) return false;  // zeros lead through any file that has many
            if (sizes.size() < least) sizes.insert(said);
            at = data_.back().first + data_.back().second;
        }
        const auto covered = file_.size() - start - 4 * data_.size();
        return at == file_.size() && data_.size() >= least && empty * 16 <= data_.size() && sizes.size() >= 3 &&
               covered * 4 >= file_.size() * 3;
    }

    [[nodiscard]] Chain chain(std::uint64_t at, ByteOrder order, std::uint64_t itself) const {
        Chain out;
        out.table.at = at;
        out.table.end = file_.size();
        out.table.numbers = 4;
        out.placed.size = Column{0, 4, order};
        out.placed.counts_itself = itself > 0;
        out.placed.chain = Placed::Chain::to_the_end;
        for (const auto& [place, size] : data_) {
            out.table.numbers_at.push_back(place - 4);
            out.placed.begins.push_back(place);
            out.placed.sizes.push_back(size);
            out.placed.covered += size;
        }
        return out;
    }
};

}  // namespace

std::vector<Chain> chains_in(ByteSpan file, const Progress& progress) {
    auto out = Chains(file, progress).find();
    if (auto nameless = Nameless(file).find()) out.push_back(std::move(*nameless));
    return out;
}

}  // namespace skivet::draft
