#include "base/runs.h"

#include <algorithm>
#include <array>

#include "base/phrase.h"

namespace skivet {
namespace {

using Does = RunsSpec::Does;

std::uint32_t count_of(const RunsSpec::Range& range, unsigned control) {
    return static_cast<std::uint32_t>(static_cast<std::int64_t>(range.count) +
                                      static_cast<std::int64_t>(range.step) * (control - range.from));
}

/// The control byte for a count, or nothing.
std::optional<unsigned> control_for(const RunsSpec::Range& range, std::uint32_t count) {
    for (auto c = range.from; c <= range.to; ++c)
        if (count_of(range, c) == count) return c;
    return std::nullopt;
}

/// For each count up to the largest the control byte that says it; 256 where none does.
std::vector<unsigned> controls(const RunsSpec& spec, Does does) {
    std::uint32_t most = 0;
    for (const auto& r : spec.ranges)
        if (r.does == does) most = std::max({most, count_of(r, r.from), count_of(r, r.to)});
    std::vector<unsigned> out(most + 1, 256);
    for (const auto& r : spec.ranges)
        if (r.does == does)
            for (auto c = r.from; c <= r.to; ++c) {
                auto& known = out[count_of(r, c)];
                if (known == 256) known = c;
            }
    return out;
}

}  // namespace

std::string wrong_in(const RunsSpec& spec) {
    if (spec.unit == 0 || spec.unit > 16) return said("unit is 1 to 16 bytes");
    if (spec.ranges.empty()) return said("ranges are a list of { from, to, does, count }");
    std::array<bool, 256> used{};
    bool single = false;
    std::array<bool, 256> itself{};
    bool repeat_one = false;
    for (const auto& r : spec.ranges) {
        if (r.from > r.to || r.to > 255) return said("a range goes from 0 to 255");
        for (auto c = r.from; c <= r.to; ++c) {
            if (used[c]) return phrase("two ranges hold {}", c);
            used[c] = true;
            if (r.does == Does::itself) itself[c] = true;
        }
        if (r.does == Does::itself && spec.unit != 1) return said("\"itself\" goes with elements of one byte");
        if (r.does != Does::copy && r.does != Does::repeat) continue;
        if (r.count > 65536 || (r.step < 0 && r.count < r.to - r.from)) return phrase("counts of the range from {} go below 0", r.from);
        if (r.does == Does::copy && control_for(r, 1)) single = true;
        if (r.does == Does::repeat && control_for(r, 1)) repeat_one = true;
    }
    const bool all_itself = std::all_of(itself.begin(), itself.end(), [](bool b) { return b; });
    if (!single && !repeat_one && !all_itself) return said("no range can say one single element");
    return {};
}

Result<Bytes> unpack_runs(const RunsSpec& spec, ByteSpan packed, std::optional<std::uint64_t> expected, std::uint64_t most) {
    if (expected && *expected > most)
        return fail(ErrorCode::limit, phrase("would unpack to {}, more than the limit", human_bytes(*expected)));
    std::array<const RunsSpec::Range*, 256> by_control{};
    for (const auto& r : spec.ranges)
        for (auto c = r.from; c <= r.to; ++c) by_control[c] = &r;
    Bytes out;
    std::size_t in = 0;
    while (in < packed.size() && !(expected && out.size() >= *expected)) {
        const auto control = static_cast<unsigned>(packed[in]);
        const auto* range = by_control[control];
        if (!range) return fail_at(ErrorCode::damaged, in, phrase("no range holds the control byte {}", control));
        ++in;
        if (range->does == Does::nothing) continue;
        if (range->does == Does::itself) {
            out.push_back(static_cast<std::byte>(control));
            continue;
        }
        const auto count = std::uint64_t{count_of(*range, control)};
        const auto follow = (range->does == Does::copy ? count : 1) * spec.unit;
        if (packed.size() - in < follow)
            return fail_at(ErrorCode::damaged, in, phrase("the run needs {} bytes, has {}", grouped(follow), grouped(packed.size() - in)));
        if (out.size() + count * spec.unit > most)
            return fail(ErrorCode::limit, phrase("unpacks to more than the limit of {}", human_bytes(most)));
        const auto element = packed.subspan(in, static_cast<std::size_t>(follow));
        for (std::uint64_t i = 0; i < (range->does == Does::copy ? 1 : count); ++i) out.insert(out.end(), element.begin(), element.end());
        in += static_cast<std::size_t>(follow);
    }
    if (expected && out.size() != *expected)
        return fail_at(ErrorCode::damaged, in, phrase("unpacks to {} bytes, should be {}", grouped(out.size()), grouped(*expected)));
    return out;
}

Result<Bytes> pack_runs(const RunsSpec& spec, ByteSpan data) {
    const auto unit = spec.unit;
    if (data.size() % unit != 0)
        return fail(ErrorCode::unfit, phrase("{} bytes are no whole number of elements of {}", grouped(data.size()), unit));
    const auto copies = controls(spec, Does::copy), repeats = controls(spec, Does::repeat);
    std::array<bool, 256> itself{};
    for (const auto& r : spec.ranges)
        if (r.does == Does::itself)
            for (auto c = r.from; c <= r.to; ++c) itself[c] = true;
    const auto elements = data.size() / unit;
    const auto same = [&](std::size_t a, std::size_t b) {
        return std::equal(data.begin() + static_cast<std::ptrdiff_t>(a * unit), data.begin() + static_cast<std::ptrdiff_t>((a + 1) * unit),
                          data.begin() + static_cast<std::ptrdiff_t>(b * unit));
    };
    // The largest count that can be said of at most so many.
    const auto fitting = [](const std::vector<unsigned>& known, std::size_t count) {
        count = std::min(count, known.size() - 1);
        while (count > 0 && known[count] == 256) --count;
        return count;
    };
    const auto run_at = [&](std::size_t i) {
        std::size_t n = 1;
        while (i + n < elements && n + 1 < repeats.size() && same(i, i + n)) ++n;
        return n;
    };
    Bytes out;
    const auto element = [&](std::size_t i, std::size_t count) {
        out.insert(out.end(), data.begin() + static_cast<std::ptrdiff_t>(i * unit),
                   data.begin() + static_cast<std::ptrdiff_t>((i + count) * unit));
    };
    for (std::size_t i = 0; i < elements;) {
        const auto run = fitting(repeats, run_at(i));
        const bool alone = unit == 1 && itself[static_cast<std::size_t>(data[i])];
        if (run >= 3 || (run >= 2 && !alone)) {
            out.push_back(static_cast<std::byte>(repeats[run]));
            element(i, 1);
            i += run;
            continue;
        }
        if (alone) {
            out.push_back(data[i++]);
            continue;
        }
        std::size_t n = 1;
        while (i + n < elements && n + 1 < copies.size() && fitting(repeats, run_at(i + n)) < 3) ++n;
        if (const auto copy = fitting(copies, n); copy > 0) {
            out.push_back(static_cast<std::byte>(copies[copy]));
            element(i, copy);
            i += copy;
        } else if (run > 0) {
            out.push_back(static_cast<std::byte>(repeats[run]));
            element(i, 1);
            i += run;
        } else {
            return fail(ErrorCode::unfit, phrase("no range can say the byte {}", static_cast<unsigned>(data[i])));
        }
    }
    return out;
}

}  // namespace skivet
