#include "delivery/journal.h"

#include <xxhash.h>
#include <nlohmann/json.hpp>

#include "base/json_number.h"
#include "base/keys.h"

namespace skivet {
namespace {

using nlohmann::json;

constexpr std::string_view magic = "SKJ3", first_magic = "SKJ2";
constexpr std::uint64_t sector = 512;
constexpr std::uint64_t longest_description = 256u << 20;

// Paths and entry names are bytes; JSON wants UTF-8, so they are kept as hexadecimal.
std::string hex_text(std::string_view text) { return to_hex(as_bytes(text)); }

std::string from_hex_text(const json& value) { return as_text(bytes_of_hex(value.get<std::string>()).value_or(Bytes{})); }

Sha256 hash_of(const json& value) {
    Sha256 out{};
    const auto bytes = bytes_of_hex(value.get<std::string>()).value_or(Bytes{});
    if (bytes.size() == out.size()) std::copy(bytes.begin(), bytes.end(), out.begin());
    return out;
}

std::string hex_of(std::span<const std::uint64_t> numbers) {
    Bytes bytes(numbers.size() * 8);
    for (std::size_t i = 0; i < numbers.size(); ++i) store_le(bytes.data() + i * 8, numbers[i]);
    return to_hex(bytes);
}
std::vector<std::uint64_t> numbers_of(const json& value) {
    const auto bytes = bytes_of_hex(value.get<std::string>()).value_or(Bytes{});
    std::vector<std::uint64_t> out;
    for (std::size_t at = 0; at + 8 <= bytes.size(); at += 8) out.push_back(load_le<std::uint64_t>(bytes.data() + at));
    return out;
}

json to_json(const JournalFile& file) {
    auto ranges = json::array(), back = json::array();
    for (const auto& r : file.ranges)
        ranges.push_back({{"at", r.at},
                          {"old_size", r.old_size},
                          {"new_size", r.new_size},
                          {"new_hash", to_hex(r.new_hash)},
                          {"sectors", hex_of(r.new_sectors)}});
    for (const auto& b : file.back) back.push_back({{"from_new", b.from_new}, {"at", b.from_new ? b.at : 0}, {"size", b.size}});
    json out = {{"file", hex_text(file.file.string())},
                {"way", static_cast<int>(file.way)},
                {"old_size", file.old_size},
                {"new_size", file.new_size},
                {"ranges", ranges}};
    if (!file.back.empty()) out["back"] = back;
    for (const auto& folder : file.folders) out["folders"].push_back(hex_text(folder.string()));
    if (!file.fresh.empty()) out["fresh"] = hex_text(file.fresh.string());
    if (file.way == Way::remove) out["mode"] = file.mode;
    if (file.way == Way::rebuild || file.way == Way::create || file.way == Way::remove)
        out["old_hash"] = to_hex(file.old_hash), out["new_hash"] = to_hex(file.new_hash);
    return out;
}

/// Gives every kept stretch its place behind `at`; returns where the last one ends, or nothing when that overflows.
std::optional<std::uint64_t> place_kept(JournalPart& part, std::uint64_t at) {
    const auto take = [&](std::uint64_t& place, std::uint64_t size) {
        place = at;
        return !__builtin_add_overflow(at, size, &at);
    };
    for (auto& file : part.files) {
        for (auto& r : file.ranges)
            if (!take(r.kept_at, r.old_size)) return std::nullopt;
        for (auto& b : file.back)
            if (!b.from_new && !take(b.at, b.size)) return std::nullopt;
    }
    return at;
}

}  // namespace

std::vector<std::pair<std::uint64_t, std::uint64_t>> sectors_of(const JournalRange& range) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> out;
    const auto old_end = range.at + std::min(range.old_size, range.new_size), end = range.at + range.new_size;
    for (auto at = range.at; at < end;) {
        auto next = std::min(end, (at / sector + 1) * sector);
        if (at < old_end) next = std::min(next, old_end);
        out.emplace_back(at, next);
        at = next;
    }
    return out;
}

std::vector<std::uint64_t> sector_hashes(const JournalRange& range, ByteSpan new_bytes) {
    std::vector<std::uint64_t> out;
    for (const auto& [from, to] : sectors_of(range))
        out.push_back(XXH3_64bits(new_bytes.data() + (from - range.at), static_cast<std::size_t>(to - from)));
    return out;
}

std::uint64_t JournalPart::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& file : files) {
        for (const auto& range : file.ranges) sum += range.new_size;
        if (file.way == Way::rebuild || file.way == Way::create) sum += file.new_size;
    }
    return sum;
}

std::uint64_t JournalPart::bytes_kept() const {
    std::uint64_t sum = 0;
    for (const auto& file : files) {
        for (const auto& range : file.ranges) sum += range.old_size;
        for (const auto& piece : file.back) sum += piece.from_new ? 0 : piece.size;
    }
    return sum;
}

std::uint64_t Journal::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& part : parts) sum += part.bytes_written();
    return sum;
}

std::uint64_t Journal::bytes_kept() const {
    std::uint64_t sum = 0;
    for (const auto& part : parts) sum += part.bytes_kept();
    return sum;
}

bool Journal::touches(const std::filesystem::path& source) const {
    return std::any_of(parts.begin(), parts.end(), [&](const auto& part) { return part.source == source; });
}

std::vector<std::string> Journal::entries() const {
    std::vector<std::string> out;
    for (const auto& part : parts) out.insert(out.end(), part.entries.begin(), part.entries.end());
    return out;
}

Bytes write_description(const Journal& journal, JournalPart& part) {
    json description = {
        {"id", journal.id},         {"time", journal.time},  {"title", hex_text(journal.title)}, {"source", hex_text(part.source.string())},
        {"entries", json::array()}, {"files", json::array()}};
    if (part.device) description["device"] = part.apart ? "apart" : "here";
    for (const auto& entry : part.entries) description["entries"].push_back(hex_text(entry));
    for (const auto& file : part.files) description["files"].push_back(to_json(file));
    const auto text = description.dump();
    ByteWriter out;
    out.put(magic);
    out.le(static_cast<std::uint32_t>(text.size()));
    out.put(text);
    const auto digest = sha256(out.bytes);
    out.put(digest);
    (void)place_kept(part, out.bytes.size());
    return std::move(out.bytes);
}

Result<Journal> read_description(ByteSpan data) {
    const auto broken = [] { return fail(ErrorCode::damaged, "the journal is not complete"); };
    if (data.size() < 8 + 64 || (as_text(data.first(4)) != magic && as_text(data.first(4)) != first_magic)) return broken();
    const std::uint64_t length = load_le<std::uint32_t>(data.data() + 4);
    if (length > longest_description || length > data.size() - 8 - 64) return broken();
    const auto body = data.first(static_cast<std::size_t>(8 + length));
    const auto digest = sha256(body);
    if (!std::equal(digest.begin(), digest.end(), data.begin() + static_cast<std::ptrdiff_t>(body.size()))) return broken();
    Journal out;
    JournalPart part;
    try {
        const auto description = json::parse(as_text(body.subspan(8)));
        out.id = description.at("id").get<std::string>();
        out.time = whole_number<std::int64_t>(description.at("time"));
        out.title = from_hex_text(description.at("title"));
        part.source = from_hex_text(description.at("source"));
        part.device = description.contains("device");
        part.apart = part.device && description.at("device") == "apart";
        for (const auto& entry : description.at("entries")) part.entries.push_back(from_hex_text(entry));
        for (const auto& file : description.at("files")) {
            JournalFile f;
            f.file = from_hex_text(file.at("file"));
            const auto way = whole_number<int>(file.at("way"));
            if (way < 0 || way > static_cast<int>(Way::remove)) return broken();
            f.way = static_cast<Way>(way);
            f.old_size = whole_number<std::uint64_t>(file.at("old_size"));
            f.new_size = whole_number<std::uint64_t>(file.at("new_size"));
            for (const auto& range : file.at("ranges")) {
                JournalRange r{whole_number<std::uint64_t>(range.at("at")),
                               whole_number<std::uint64_t>(range.at("old_size")),
                               whole_number<std::uint64_t>(range.at("new_size")),
                               hash_of(range.at("new_hash")),
                               0,
                               {}};
                std::uint64_t end = 0;
                if (__builtin_add_overflow(r.at, std::max(r.old_size, r.new_size), &end)) return broken();
                if (range.contains("sectors")) r.new_sectors = numbers_of(range.at("sectors"));
                if (!r.new_sectors.empty() && (r.new_size > r.new_sectors.size() * sector || r.new_sectors.size() != sectors_of(r).size()))
                    return broken();
                f.ranges.push_back(std::move(r));
            }
            if (file.contains("fresh")) f.fresh = from_hex_text(file.at("fresh"));
            if (file.contains("back"))
                for (const auto& piece : file.at("back"))
                    f.back.push_back({piece.at("from_new").get<bool>(), whole_number<std::uint64_t>(piece.at("at")),
                                      whole_number<std::uint64_t>(piece.at("size"))});
            if (file.contains("folders"))
                for (const auto& folder : file.at("folders")) f.folders.emplace_back(from_hex_text(folder));
            if (file.contains("mode")) f.mode = whole_number<std::uint32_t>(file.at("mode")) & 07777;
            if (file.contains("old_hash")) f.old_hash = hash_of(file.at("old_hash")), f.new_hash = hash_of(file.at("new_hash"));
            part.files.push_back(std::move(f));
        }
    } catch (const json::exception&) {
        return broken();
    }
    const auto end = place_kept(part, body.size() + 32);
    if (!end || *end + 32 != data.size()) return broken();
    out.parts.push_back(std::move(part));
    return out;
}

}  // namespace skivet
