#include "container/write_plan.h"

namespace skivet {

std::string_view name_of(Way way) {
    switch (way) {
        case Way::in_place: return "in-place";
        case Way::append: return "append";
        case Way::rebuild: return "rebuild";
        default: return "nothing";
    }
}

std::uint64_t FilePlan::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& range : ranges) sum += range.bytes.size();
    return sum;
}

std::uint64_t WritePlan::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& file : files) sum += file.bytes_written();
    return sum;
}

void minimize(FilePlan& plan, ByteSpan current, std::size_t gap) {
    std::sort(plan.ranges.begin(), plan.ranges.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    std::vector<WriteRange> out;
    for (const auto& range : plan.ranges) {
        const auto differs = [&](std::size_t i) {
            const auto at = range.at + i;
            return at >= current.size() || current[static_cast<std::size_t>(at)] != range.bytes[i];
        };
        std::size_t i = 0;
        while (i < range.bytes.size()) {
            while (i < range.bytes.size() && !differs(i)) ++i;
            if (i == range.bytes.size()) break;
            const auto start = i;
            auto end = i + 1;
            for (std::size_t same = 0; ++i < range.bytes.size() && same <= gap;) {
                if (differs(i)) end = i + 1, same = 0;
                else ++same;
            }
            out.push_back({range.at + start, Bytes(range.bytes.begin() + static_cast<std::ptrdiff_t>(start),
                                                   range.bytes.begin() + static_cast<std::ptrdiff_t>(end))});
            i = end;
        }
    }
    plan.ranges = std::move(out);
    if (plan.empty()) plan.way = Way::nothing;
}

Result<Bytes> planned_bytes(const FilePlan& plan, ByteSpan current) {
    Bytes out(current.begin(), current.end());
    out.resize(static_cast<std::size_t>(plan.new_size));
    for (const auto& range : plan.ranges) {
        if (range.at > out.size() || range.bytes.size() > out.size() - range.at)
            return fail_at(ErrorCode::damaged, range.at, "the plan writes past the end of the file");
        std::copy(range.bytes.begin(), range.bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(range.at));
    }
    return out;
}

}  // namespace skivet
