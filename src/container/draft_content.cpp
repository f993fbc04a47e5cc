// What entries hold, once it is known where they lie: hidden by a key, packed, with sizes and checksums of what they are unpacked.
#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <set>

#include "base/cipher.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/draft_found.h"

namespace skivet::draft {
namespace {

constexpr std::size_t most_samples = 24;            // entries a guess is tried on: enough that a wrong packing does not pass by chance
constexpr std::uint64_t sample_bytes = 4u << 20;    // of each
constexpr std::uint64_t all_samples = 8u << 20;     // of all together
constexpr std::uint64_t most_unpacked = 64u << 20;  // of a guess: wrong numbers would ask for any amount
constexpr std::size_t longest_key = 16;             // bytes; longer ones need more content than an archive of small files has

using Packed = std::map<std::size_t, Packing>;

/// How often the commonest byte stands at each place of a period, together, as a part of all bytes; and which bytes these are.
struct Period {
    double share = 0;
    Bytes commonest;
};
Period period_of(const std::vector<ByteSpan>& stretches, std::size_t period) {
    std::vector<std::array<std::uint32_t, 256>> counts(period);
    std::size_t all = 0;
    for (const auto& s : stretches)
        for (std::size_t i = 0; i < s.size(); ++i, ++all) ++counts[i % period][static_cast<unsigned>(s[i])];
    Period out;
    std::uint64_t common = 0;
    for (const auto& c : counts) {
        const auto most = std::max_element(c.begin(), c.end());
        common += *most;
        out.commonest.push_back(static_cast<std::byte>(most - c.begin()));
    }
    out.share = all ? static_cast<double>(common) / static_cast<double>(all) : 0;
    return out;
}

/// The shortest period at which some byte is much commoner than at none (a repeated key's length shows in how often bytes that stand a
/// period apart are the same, after W. F. Friedman, The Index of Coincidence, 1922); and the key, if zero is what is commonest beneath it.
std::optional<Bytes> key_of(const std::vector<ByteSpan>& stretches) {
    std::size_t bytes = 0;
    for (const auto& s : stretches) bytes += s.size();
    if (bytes < 512) return std::nullopt;
    std::vector<Period> periods;
    double best = 0;
    for (std::size_t p = 1; p <= longest_key; ++p) best = std::max(best, periods.emplace_back(period_of(stretches, p)).share);
    if (best < 0.06) return std::nullopt;  // of 256 byte values none is common: packed, or a longer key
    for (std::size_t p = 1; p <= longest_key; ++p) {
        const auto& period = periods[p - 1];
        if (period.share < 0.93 * best) continue;
        if (std::all_of(period.commonest.begin(), period.commonest.end(), [](std::byte b) { return b == std::byte{0}; }))
            return std::nullopt;
        return period.commonest;
    }
    return std::nullopt;
}

/// How much of a stretch looks as files look: letters, or zeros.
double plainness(ByteSpan data) {
    std::size_t plain = 0;
    for (const auto b : data) {
        const auto c = static_cast<unsigned char>(b);
        plain += c == 0 || c == '\n' || c == '\r' || c == '\t' || (c >= ' ' && c < 127);
    }
    return data.empty() ? 0 : static_cast<double>(plain) / static_cast<double>(data.size());
}

/// Bits a byte, 0 to 8.
double entropy(const std::array<std::uint64_t, 256>& counts) {
    double all = 0, sum = 0;
    for (const auto c : counts) all += static_cast<double>(c);
    for (const auto c : counts)
        if (c > 0) sum -= static_cast<double>(c) / all * std::log2(static_cast<double>(c) / all);
    return sum;
}

class Contents {
public:
    explicit Contents(Found& found) : f_(found), some_(found.samples()) {
        for (const auto i : some_)
            if (auto data = f_.stored(i)) content_[i] = std::move(*data), by_size_.push_back(i);
        std::sort(by_size_.begin(), by_size_.end(), [&](auto a, auto b) { return content_[a].size() < content_[b].size(); });
    }

    void look() {
        find_packing();
        if (!f_.has_size) find_streams();
        find_sums();
        find_doubt();
    }

private:
    Found& f_;
    std::vector<std::size_t> some_, by_size_;  ///< the smallest first: a wrong guess costs least with them
    std::map<std::size_t, Bytes> content_;     ///< of the samples, as stored
    std::optional<Column> may_be_size_;        ///< a column that looks like unpacked sizes

    std::optional<Packing> packed_as(const Bytes& data, std::uint64_t size) const {
        std::vector<Packing> tries;
        if (const auto known = packing_at(data)) tries.push_back(*known);
        if (size == data.size()) {              // as it is, or packed to just its own size, which happens with small ones
            tries.push_back(Packing::deflate);  // which ends by itself, so that it is no chance
            for (const auto packing : tries)
                if (unpack(packing, data, size, f_.context.limits)) return packing;
            return Packing::none;
        }
        tries.insert(tries.end(), {Packing::deflate, Packing::lz4_block, Packing::lzo1x, Packing::snappy, Packing::brotli});
        for (const auto packing : tries)
            if (unpack(packing, data, size, f_.context.limits)) return packing;
        return std::nullopt;
    }

    /// How each sample is packed when this column is its unpacked size; nothing when it is not.
    std::optional<Packed> packed_to(const Column& column) {
        std::size_t more = 0, far = 0;
        bool rising = true;
        for (std::size_t i = 0; i < f_.table.count(); ++i) {
            const auto packed = f_.placed.sizes[i], unpacked = f_.number(column, i);
            if (unpacked > f_.context.limits.inflated_bytes || (unpacked == 0 && packed > 16) || unpacked > packed * 256 + 64 ||
                unpacked > most_unpacked)
                return std::nullopt;
            more += unpacked + unpacked / 64 + 16 >= packed;
            far += unpacked > 64 * packed + 64;
            rising = rising && (i == 0 || unpacked >= f_.number(column, i - 1));
        }
        Packed out;
        for (const auto i : by_size_) {
            const auto& data = content_.at(i);
            const auto fits = packed_as(data, f_.number(column, i));
            if (!fits) {
                if (more * 10 >= f_.table.count() * 9 && far == 0 && !rising) may_be_size_ = column;
                return std::nullopt;
            }
            out[i] = *fits;
        }
        return out;
    }

    /// The numbers of a column, when each stands for one way of packing.
    std::optional<std::map<std::uint64_t, Packing>> methods_by(const Column& column, const Packed& packed) const {
        std::map<std::uint64_t, Packing> out;
        for (const auto& [record, packing] : packed)
            if (const auto [at, fresh] = out.try_emplace(f_.number(column, record), packing); !fresh && at->second != packing)
                return std::nullopt;
        for (std::size_t i = 0; i < f_.table.count(); ++i)
            if (!out.contains(f_.number(column, i))) return std::nullopt;
        return out.size() <= 6 ? std::optional(out) : std::nullopt;
    }

    /// Entries that are stored as they are and others: told apart by a column, or by their sizes.
    bool tell_apart(const Column& size, const Packed& packed, const std::set<Packing>& ways) {
        const auto order = f_.placed.order();
        for (std::uint64_t m = 0; m < f_.table.numbers; ++m) {
            const Column by{m, 1, order};
            if (!f_.is_free(by) || !by.apart(size)) continue;
            const auto methods = methods_by(by, packed);
            if (!methods || methods->size() < ways.size()) continue;
            std::string values;
            for (const auto& [number, packing] : *methods)
                values += fmt::format("{}{} = \"{}\"", values.empty() ? "" : ", ", number,
                                      packing == Packing::none ? "stored" : name_of(packing));
            f_.meant.push_back({by, "packed_as", fmt::format("means = \"method\", values = {{ {} }}", values)});
            return true;
        }
        if (ways.size() != 2 || *ways.begin() != Packing::none) return false;
        // Sizes tell them apart only where no entry of equal sizes is packed.
        std::uint64_t budget = 32u << 20;  // bytes that are tried
        for (std::size_t i = 0; i < f_.table.count(); ++i) {
            const auto stored = f_.placed.sizes[i];
            if (f_.number(size, i) != stored || stored == 0 || stored > budget) continue;
            budget -= stored;
            const auto data = f_.stored(i);
            if (data && packed_as(*data, data->size()) != Packing::none) return false;
        }
        f_.packing_words = fmt::format("method = \"{}\"\npacked = \"sizes differ\"\n", name_of(*ways.rbegin()));
        return true;
    }

    void find_packing() {
        if (content_.empty()) return;
        std::optional<Column> stored_twice;  // what all entries have as they are stored: their size once more
        std::vector<std::pair<unsigned, std::uint64_t>> places;
        for (const unsigned width : {4u, 8u})
            for (std::uint64_t at = 0; at + width <= f_.table.numbers; ++at) places.emplace_back(width, at);
        for (const auto& [width, at] : places) {
            const Column column{at, width, f_.placed.order()};
            if (!f_.is_free(column)) continue;
            const auto packed = packed_to(column);
            if (!packed) continue;
            std::set<Packing> ways;
            for (const auto& [record, packing] : *packed) ways.insert(packing);
            if (ways == std::set{Packing::none}) {
                bool all = true;
                for (std::size_t i = 0; all && i < f_.table.count(); ++i) all = f_.number(column, i) == f_.placed.sizes[i];
                if (all && !stored_twice) stored_twice = column;
                continue;
            }
            if (ways.size() == 1) f_.packing_words = fmt::format("method = \"{}\"\n", name_of(*ways.begin()));
            else if (!tell_apart(column, *packed, ways)) continue;
            f_.meant.push_back({column, "bytes", "means = \"size\""});
            f_.has_size = true;
            f_.proved_by_content = true;
            f_.notes.push_back(phrase("entries are packed with {}", name_of(*ways.rbegin())));
            return;
        }
        if (stored_twice && f_.placed.ends == Placed::Ends::by_size && f_.placed.size && !find_whole_streams()) {
            f_.meant.push_back({*stored_twice, "bytes", "means = \"size\""});
            f_.has_size = true;
        }
    }

    /// The packing of streams that all end where their entries end.
    std::optional<Packing> find_whole_streams() const {
        if (content_.size() < 2) return std::nullopt;
        std::optional<Packing> all;
        for (const auto& [i, data] : content_) {
            const auto packing = packing_at(data);
            const auto here = packing ? *packing : Packing::deflate;  // it has no mark, but it ends itself
            if (all && *all != here) return std::nullopt;
            all = here;
            const auto stream = unpack_stream(here, data, most_unpacked);
            if (!stream || stream->packed_size != data.size()) return std::nullopt;
        }
        return all;
    }

    /// Streams that end where the entry ends need no unpacked size.
    void find_streams() {
        f_.stream = find_whole_streams();
        if (!f_.stream) return;
        f_.packing_words = fmt::format("method = \"{}\"\n", name_of(*f_.stream));
        f_.notes.push_back(phrase("entries are packed with {}", name_of(*f_.stream)));
        f_.proved_by_content = true;
    }

    /// The unpacked content, as far as it has been found out how.
    std::optional<Bytes> content_of(std::size_t record, const Bytes& data) const {
        if (f_.stream) {
            auto out = unpack(*f_.stream, data, std::nullopt, f_.context.limits);
            return out ? std::optional(std::move(*out)) : std::nullopt;
        }
        const auto size = std::find_if(f_.meant.begin(), f_.meant.end(), [](const auto& m) { return m.name == "bytes"; });
        if (size == f_.meant.end()) return data;
        const auto bytes = f_.number(size->column, record);
        const auto packing = packed_as(data, bytes);
        if (!packing || *packing == Packing::none) return data;
        auto out = unpack(*packing, data, bytes, f_.context.limits);
        return out ? std::optional(std::move(*out)) : std::nullopt;
    }

    void find_sums() {
        for (const auto kind : {SumKind::crc32, SumKind::adler32, SumKind::fnv1a32, SumKind::xxh32})
            for (const bool packed : {false, true}) {
                std::vector<std::pair<std::size_t, std::uint64_t>> sums;
                for (const auto& [i, data] : content_) {
                    const auto content = packed ? std::optional(data) : content_of(i, data);
                    if (!content) return;
                    sums.emplace_back(i, sum_number(kind, *content));
                    if (sums.size() == 8) break;
                }
                if (sums.size() < 2) return;
                for (std::uint64_t at = 0; at + 4 <= f_.table.numbers; ++at) {
                    const Column column{at, 4, f_.placed.order()};
                    if (!f_.is_free(column) || !std::all_of(sums.begin(), sums.end(), [&](const auto& s) {
                            return f_.number(column, s.first) == (s.second & 0xFFFFFFFFu);
                        }))
                        continue;
                    constexpr std::string_view names[] = {"crc32", "adler32", "fnv1a32", "", "xxh32"};
                    f_.meant.push_back(
                        {column, "sum",
                         fmt::format("means = \"checksum\", kind = \"{}\", of = \"{}\"", names[static_cast<std::size_t>(kind)],
                                     packed && f_.key.empty() ? "stored" : "unpacked")});
                    f_.notes.push_back(said("a checksum of each entry"));
                    f_.proved_by_content = true;
                    return;
                }
            }
    }

    /// What is not understood must not pass for plain content.
    void find_doubt() {
        if (f_.stream || (f_.has_size && !f_.packing_words.empty()) || (f_.proved_by_content && f_.has_size)) return;
        if (may_be_size_ && !f_.proved_by_content) {
            f_.doubt = said("entries have a second, larger size, but nothing that is known unpacks them to it");
            return;
        }
        if (f_.proved_by_content) return;
        // Of small entries many are needed; zeros at the end are padding.
        std::array<std::uint64_t, 256> counts{};
        std::size_t bytes = 0, known = 0, looked = 0;
        const auto n = f_.table.count(), step = std::max<std::size_t>(1, n / 512);
        for (std::size_t i = 0; i < n && bytes < 256u << 10; i += step) {
            if (f_.placed.sizes[i] == 0 || f_.placed.sizes[i] > sample_bytes) continue;
            const auto data = f_.stored(i);
            if (!data) continue;
            auto head = ByteSpan(*data).first(std::min<std::size_t>(data->size(), 16u << 10));
            while (!head.empty() && head.back() == std::byte{0}) head = head.first(head.size() - 1);
            for (const auto b : head) ++counts[static_cast<unsigned>(b)];
            bytes += head.size();
            ++looked;
            known += packing_at(*data).has_value() || f_.context.textures.recognize(head, "") != nullptr;
        }
        // Random bytes show a little less than eight bits each in short stretches (G. A. Miller, 1955).
        const auto random = 8 - 255 / (2 * std::log(2.0) * static_cast<double>(std::max<std::size_t>(bytes, 1)));
        if (bytes >= 4096 && known * 4 < looked && entropy(counts) > random - 0.1)
            f_.doubt = said("all entries look as if they were packed or encrypted in a way that is not known");
    }
};

}  // namespace

std::optional<Bytes> Found::stored(std::size_t record) const {
    const auto begin = placed.begins[record], size = placed.sizes[record];
    Result<ByteSpan> bytes = fail(ErrorCode::missing, "");
    if (files.pattern.empty()) {
        bytes = slice(file, begin, size);
    } else {
        const auto which = placed.number ? number(*placed.number, record) : files.sizes.begin()->first;
        const auto at = data_files.find(fmt::format("{}/{}", files.pattern, which));
        if (at != data_files.end()) bytes = at->second.bytes(begin, size);
    }
    if (!bytes) return std::nullopt;
    return key.empty() ? Bytes(bytes->begin(), bytes->end()) : xor_with(key, *bytes);
}

std::vector<std::size_t> Found::samples() const {
    std::vector<std::size_t> out;
    const auto n = table.count(), step = std::max<std::size_t>(1, n / most_samples);
    std::uint64_t bytes = 0;
    for (std::size_t i = 0; i < n && out.size() < most_samples; i += step)
        if (placed.sizes[i] > 0 && placed.sizes[i] <= std::min(sample_bytes, all_samples - bytes)) {
            out.push_back(i);
            bytes += placed.sizes[i];
        }
    return out;
}

bool Found::is_free(const Column& column) const {
    const auto apart = [&](const std::optional<Column>& other) { return !other || column.apart(*other); };
    return column.at + column.width <= table.numbers && !table.in_name(column.at, column.width) && apart(placed.offset) &&
           apart(placed.size) && apart(placed.number) && apart(name_offset) &&
           std::all_of(meant.begin(), meant.end(), [&](const auto& m) { return column.apart(m.column); });
}

void find_data_key(Found& f) {
    // Of small entries many are needed: with few bytes a longer key always seems to fit better.
    std::vector<Bytes> data;
    std::size_t bytes_taken = 0, known = 0;
    const auto n = f.table.count(), step = std::max<std::size_t>(1, n / 1024);
    for (std::size_t i = 0; i < n && (data.size() < most_samples || bytes_taken < 256u << 10); i += step) {
        if (f.placed.sizes[i] == 0 || f.placed.sizes[i] > sample_bytes || bytes_taken > all_samples) continue;
        auto bytes = f.stored(i);
        if (!bytes) continue;
        bytes_taken += bytes->size();
        known += packing_at(*bytes).has_value() || f.context.textures.recognize(*bytes, "") != nullptr;
        data.push_back(std::move(*bytes));
    }
    if (data.empty() || known * 4 >= data.size()) return;
    std::vector<ByteSpan> stretches;
    double plain = 0, bytes = 0;
    for (const auto& d : data) {
        stretches.push_back(ByteSpan(d).first(std::min<std::size_t>(d.size(), 64u << 10)));
        plain += plainness(stretches.back()) * static_cast<double>(stretches.back().size());
        bytes += static_cast<double>(stretches.back().size());
    }
    // What is the same in every entry is mostly the zeros of a number.
    const auto hides_zeros = [&](const Bytes& key) {
        std::ptrdiff_t zeros = 0, hidden = 0;
        if (stretches.size() < 4) return false;
        for (std::size_t at = 0; at < 32; ++at) {
            if (std::any_of(stretches.begin(), stretches.end(),
                            [&](ByteSpan s) { return at >= s.size() || s[at] != stretches.front()[at]; }))
                continue;
            zeros += stretches.front()[at] == std::byte{0};
            hidden += stretches.front()[at] == key[at % key.size()];
        }
        // Pictures are often framed by one value; zeros among what never changes speak against one byte that hides all.
        return zeros > hidden || (key.size() == 1 && zeros >= 2);
    };
    const auto unhides = [&](const Bytes& key) {
        if (hides_zeros(key)) return false;
        double now = 0;
        std::size_t better = 0;  // what is hidden is hidden in every entry
        std::array<std::uint64_t, 256> before{}, after{};
        for (const auto& s : stretches) {
            const auto copy = xor_with(key, s);
            const auto plain_now = plainness(copy);
            better += plain_now >= 0.85 * plainness(s);
            now += plain_now * static_cast<double>(s.size());
            for (std::size_t i = 0; i < s.size(); ++i) ++before[static_cast<unsigned>(s[i])], ++after[static_cast<unsigned>(copy[i])];
        }
        // A key of several bytes spreads what is common over as many values; one of a single byte only changes which they are.
        if (key.size() > 1) return entropy(after) + 0.3 < entropy(before) && after[0] > 2 * before[0];
        return now > plain * 1.15 && now > 0.3 * bytes && better * 10 >= stretches.size() * 7;
    };
    // One entry that can be read shows that none is hidden.
    const auto can_be_read = [](ByteSpan s) {
        return s.size() >= 64 && plainness(s) > 0.97 && std::set<std::byte>(s.begin(), s.end()).size() > 12;
    };
    if (std::any_of(stretches.begin(), stretches.end(), can_be_read)) return;
    if (!f.table_key.empty() && unhides(f.table_key)) {
        f.key = f.table_key;
        f.notes.push_back(said("entries are hidden by the same key as the records"));
        return;
    }
    if (plain < 0.8 * bytes)
        if (const auto key = key_of(stretches); key && unhides(*key)) {
            f.key = *key;
            f.notes.push_back(phrase("entries are hidden by a key of {} bytes", key->size()));
            return;
        }
    // Packed streams have no commonest byte, but zlib's first two are nearly always one of four pairs (RFC 1950).
    for (const char second : {'\x9C', '\xDA', '\x01', '\x5E'})
        for (const std::size_t length : {1u, 2u}) {
            Bytes key = {data.front().front() ^ std::byte{0x78}};
            if (data.front().size() < 2) return;
            if (length == 2) key.push_back(data.front()[1] ^ static_cast<std::byte>(second));
            if (std::all_of(key.begin(), key.end(), [](std::byte b) { return b == std::byte{0}; })) continue;
            std::size_t good = 0;
            for (const auto& hidden : data) {
                const auto copy = xor_with(key, hidden);
                const auto stream = packing_at(copy) == Packing::zlib ? unpack_stream(Packing::zlib, copy, most_unpacked)
                                                                      : Result<UnpackedStream>(fail(ErrorCode::damaged, ""));
                good += stream.has_value();
                if (!stream) break;
            }
            if (good < data.size()) continue;
            f.key = key;
            f.notes.push_back(phrase("entries are hidden by a key of {} bytes", key.size()));
            return;
        }
}

void find_contents(Found& found) { Contents(found).look(); }

std::vector<Bytes> likely_keys(ByteSpan file) {
    // Tables are full of zeros: where they lie, at one of the ends, the key shows.
    std::vector<Bytes> out;
    const auto look = [&](std::size_t from, std::size_t to) {
        const std::vector<ByteSpan> stretch = {file.subspan(from, to - from)};
        auto key = plainness(stretch[0]) > 0.9 ? std::nullopt : key_of(stretch);
        if (!key) return;
        // With the key off there must be far more zeros.
        std::size_t before = 0, after = 0;
        for (std::size_t i = 0; i < stretch[0].size(); ++i) {
            before += stretch[0][i] == std::byte{0};
            after += stretch[0][i] == (*key)[i % key->size()];
        }
        if (after < 2 * before || after * 8 < stretch[0].size() || out.size() >= 2) return;
        const auto n = key->size();
        std::rotate(key->begin(), key->begin() + static_cast<std::ptrdiff_t>((n - from % n) % n), key->end());
        if (std::find(out.begin(), out.end(), *key) == out.end()) out.push_back(std::move(*key));
    };
    for (const std::size_t bytes : {std::size_t{2048}, std::size_t{16384}, std::size_t{65536}}) {
        const auto n = std::min(file.size(), bytes);
        look(0, n);
        look(file.size() - n, file.size());
    }
    return out;
}

}  // namespace skivet::draft
