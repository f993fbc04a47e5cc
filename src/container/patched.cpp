#include "container/patched.h"

#include <algorithm>

#include "container/sheet_gaps.h"

namespace skivet {

using sheet_gaps::overlay;

void Patched::put(std::uint64_t at, ByteSpan bytes) {
    if (bytes.empty()) return;
    const auto end = at + bytes.size();
    auto next = ranges_.lower_bound(at);
    if (next != ranges_.begin()) {
        auto before = std::prev(next);
        const auto before_end = before->first + before->second.size();
        if (before_end > end) {  // inside of one
            std::copy(bytes.begin(), bytes.end(), before->second.begin() + static_cast<std::ptrdiff_t>(at - before->first));
            return;
        }
        if (before_end > at) before->second.resize(static_cast<std::size_t>(at - before->first));
    }
    while (next != ranges_.end() && next->first < end) {
        const auto next_end = next->first + next->second.size();
        if (next_end > end) {
            Bytes rest(next->second.begin() + static_cast<std::ptrdiff_t>(end - next->first), next->second.end());
            ranges_.erase(next);
            ranges_.emplace(end, std::move(rest));
            break;
        }
        next = ranges_.erase(next);
    }
    ranges_[at] = Bytes(bytes.begin(), bytes.end());
    size_ = std::max(size_, end);
}

Bytes Patched::read(std::uint64_t at, std::uint64_t size) const {
    Bytes out(static_cast<std::size_t>(size));
    if (at < file_.size())
        overlay(out, at, at,
                file_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(std::min<std::uint64_t>(size, file_.size() - at))));
    auto range = ranges_.upper_bound(at);
    if (range != ranges_.begin()) --range;
    for (; range != ranges_.end() && range->first < at + size; ++range) overlay(out, at, range->first, range->second);
    return out;
}

std::vector<Overlay> Patched::overlays() const {
    std::vector<Overlay> out;
    for (const auto& [at, bytes] : ranges_) out.push_back({at, bytes});
    return out;
}

FilePlan Patched::over_the_file(FilePlan plan) const {
    FilePlan out;
    if (plan.pieces.empty()) {
        auto all = *this;
        for (const auto& range : plan.ranges) all.put(range.at, range.bytes);
        out.new_size = plan.empty() ? size_ : plan.new_size;
        for (auto& [at, bytes] : all.ranges_)
            if (at < out.new_size) {
                bytes.resize(static_cast<std::size_t>(std::min<std::uint64_t>(bytes.size(), out.new_size - at)));
                out.ranges.push_back({at, std::move(bytes), 0});
            }
        out.way = out.new_size > file_.size() ? Way::append : Way::in_place;
        return out;
    }
    for (auto& piece : plan.pieces) {
        if (!piece.is_copy()) {
            out.pieces.push_back(std::move(piece));
            continue;
        }
        // What lies over the file is bytes, the rest is copied from it.
        auto at = piece.from;
        const auto end = piece.from + piece.size;
        while (at < end) {
            auto next = ranges_.upper_bound(at);
            auto until = next == ranges_.end() ? end : std::min(end, next->first);
            if (next != ranges_.begin())
                if (const auto over = std::prev(next); over->first + over->second.size() > at) {
                    until = std::min(end, over->first + over->second.size());
                    out.pieces.push_back({0, 0, read(at, until - at)});
                    at = until;
                    continue;
                }
            if (at < file_.size()) {
                until = std::min<std::uint64_t>(until, file_.size());
                out.pieces.push_back({at, until - at, {}});
            } else {
                out.pieces.push_back({0, 0, Bytes(static_cast<std::size_t>(until - at))});
            }
            at = until;
        }
    }
    return out;
}

}  // namespace skivet
