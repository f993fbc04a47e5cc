#include "delivery/device.h"

#include <fmt/format.h>

#include "base/phrase.h"
#include "container/parts.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::uint64_t page = 4096;       // bytes
constexpr std::size_t longest_name = 255;  // UTF-16 units
constexpr unsigned most_parts = 100;       // two digits of numbers

/// UTF-16 units of UTF-8 text: one for each character, two for those beyond 0xFFFF.
std::size_t utf16_units(std::string_view text) {
    std::size_t out = 0;
    for (const auto c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if ((byte & 0xC0) != 0x80) out += byte >= 0xF0 ? 2 : 1;
    }
    return out;
}

/// The whole new file as pieces of the origin and bytes.
std::vector<PlanPiece> pieces_of(const FilePlan& becomes, std::uint64_t old_size) {
    if (!becomes.pieces.empty()) return becomes.pieces;
    const auto new_size = becomes.file.empty() ? old_size : becomes.new_size;
    std::vector<PlanPiece> out;
    std::uint64_t at = 0;
    const auto up_to = [&](std::uint64_t end) {
        const auto copied = std::min(end, old_size);
        if (at < copied) out.push_back({at, copied - at, {}});
        // What grows without being written reads as zeros.
        if (const auto from = std::max(at, old_size); from < end) out.push_back({0, 0, Bytes(static_cast<std::size_t>(end - from))});
        at = std::max(at, end);
    };
    for (const auto& range : becomes.ranges) {
        up_to(range.at);
        out.push_back({0, 0, range.bytes});
        at = range.at + range.bytes.size();
    }
    up_to(new_size);
    return out;
}

/// The first `size` bytes of the pieces; they are taken off.
std::vector<PlanPiece> first_of(std::vector<PlanPiece>& pieces, std::size_t& next, std::uint64_t size) {
    std::vector<PlanPiece> out;
    while (size > 0 && next < pieces.size()) {
        auto& piece = pieces[next];
        if (piece.length() <= size) {
            size -= piece.length();
            out.push_back(std::move(piece));
            ++next;
            continue;
        }
        if (piece.is_copy()) {
            out.push_back({piece.from, size, {}});
            piece.from += size, piece.size -= size;
        } else {
            const auto first = static_cast<std::size_t>(size);
            out.push_back({0, 0, piece.bytes.part(0, first)});
            piece.bytes = piece.bytes.part(first, piece.bytes.size() - first);
        }
        size = 0;
    }
    return out;
}

}  // namespace

Status check_fat_path(std::string_view path) {
    for (std::size_t at = 0; at <= path.size();) {
        const auto end = std::min(path.find('/', at), path.size());
        const auto name = path.substr(at, end - at);
        at = end + 1;
        const auto wrong = [&](const std::string& why) {
            return fail(ErrorCode::usage, phrase("a card cannot hold the name \"{}\": {}", name, why),
                        "Deliver it into the archives, or change the layout of the device's files");
        };
        if (name.empty()) return wrong("it is empty");
        for (const auto c : name)
            if (static_cast<unsigned char>(c) < 0x20 || std::string_view("\"*:<>?\\|").find(c) != std::string_view::npos)
                return wrong(static_cast<unsigned char>(c) < 0x20 ? "it has a control character" : phrase("it has a {}", c));
        if (name.back() == '.' || name.back() == ' ') return wrong("it ends in a point or a space");
        if (utf16_units(name) > longest_name) return wrong(phrase("it is longer than {}", longest_name));
    }
    return {};
}

std::uint64_t DeviceCut::part_size() const { return largest >= page ? largest / page * page : largest; }

std::string DeviceCut::ending(unsigned number) const {
    const auto open = part.find('{'), close = part.find('}');
    if (open == std::string::npos || close == std::string::npos || close < open) return part + std::to_string(number);
    return part.substr(0, open) + fmt::format("{:0{}}", number, close - open - 1) + part.substr(close + 1);
}

Status check_cut(const DeviceCut& cut) {
    if (cut.largest < (1u << 20))
        return fail(ErrorCode::usage, phrase("files of at most {} bytes are too small for a card", cut.largest),
                    "4294967295 is what FAT32 holds");
    const auto first = part_name("x" + cut.ending(0)), later = part_name("x" + cut.ending(12));
    if (!first || !later || first->whole != "x" || later->whole != "x" || first->style != later->style || later->number != 12)
        return fail(ErrorCode::usage, phrase("parts with names like x{} would not be known again", cut.ending(0)), "Write .{nn} or .{nnn}");
    return {};
}

std::optional<fs::path> there_on_device(const fs::path& to, const DeviceCut& cut) {
    std::error_code code;
    if (fs::exists(to, code)) return to;
    auto part = to;
    part += cut.ending(0);
    return fs::exists(part, code) ? std::optional(part) : std::nullopt;
}

Result<WritePlan> plan_copy(const fs::path& origin, const FilePlan& becomes, const fs::path& to, const DeviceCut& cut) {
    SKIVET_TRY(const auto view, FileView::open(origin));
    SKIVET_TRY(const auto all, view.bytes());
    if (!becomes.file.empty() && !(becomes.expected == view.stamp()))
        return fail(ErrorCode::stale, phrase("{} changed since the plan was made", origin.filename().string()), "Look at the plan again");
    FilePlan whole;
    whole.pieces = pieces_of(becomes, view.size());
    join_pieces(whole);
    const bool one = whole.new_size <= cut.largest;
    const auto size = one ? std::max<std::uint64_t>(1, whole.new_size) : cut.part_size();
    WritePlan out;
    std::size_t next = 0;
    for (unsigned number = 0; number == 0 || next < whole.pieces.size(); ++number) {
        if (number == most_parts)
            return fail(ErrorCode::limit, phrase("{} would be cut into more than {} parts", to.filename().string(), most_parts),
                        "Let the device's files be larger");
        FilePlan plan;
        plan.file = to;
        if (!one) plan.file += cut.ending(number);
        plan.way = Way::create;
        plan.origin = {view.path(), view.stamp()};
        plan.sample = sample_of(all);
        plan.pieces = first_of(whole.pieces, next, size);
        for (const auto& piece : plan.pieces) plan.new_size += piece.length();
        out.files.push_back(std::move(plan));
    }
    return out;
}

Status check_sizes(const WritePlan& plan, const DeviceCut& cut) {
    for (const auto& file : plan.files)
        if (file.new_size > cut.largest)
            return fail(ErrorCode::limit,
                        phrase("{} would have {} bytes, and the card holds {} in a file", file.file.filename().string(), file.new_size,
                               cut.largest),
                        "Undo the deliveries to the card and deliver everything at once, or let its files be larger");
    return {};
}

}  // namespace skivet
