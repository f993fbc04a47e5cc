#include "delivery/journal.h"

#include <nlohmann/json.hpp>

namespace skivet {
namespace {

constexpr std::string_view magic = "SKJ1";

// Paths and entry names are bytes; JSON wants UTF-8, so bytes that are not are kept as hexadecimal.
std::string hex_text(std::string_view text) { return to_hex(as_bytes(text)); }

Bytes from_hex(std::string_view digits) {
    Bytes out;
    const auto value = [](char c) { return c <= '9' ? c - '0' : c - 'a' + 10; };
    for (std::size_t i = 0; i + 1 < digits.size(); i += 2) out.push_back(static_cast<std::byte>(value(digits[i]) * 16 + value(digits[i + 1])));
    return out;
}

std::string from_hex_text(const nlohmann::json& value) { return as_text(from_hex(value.get<std::string>())); }

}  // namespace

std::uint64_t Journal::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& file : files)
        for (const auto& range : file.ranges) sum += range.new_size;
    return sum;
}

std::uint64_t Journal::bytes_kept() const {
    std::uint64_t sum = 0;
    for (const auto& file : files)
        for (const auto& range : file.ranges) sum += range.old_bytes.size();
    return sum;
}

Bytes write_journal(const Journal& journal) {
    nlohmann::json description = {{"id", journal.id}, {"time", journal.time}, {"title", hex_text(journal.title)},
                                  {"source", hex_text(journal.source.string())}, {"entries", nlohmann::json::array()},
                                  {"files", nlohmann::json::array()}};
    for (const auto& entry : journal.entries) description["entries"].push_back(hex_text(entry));
    ByteWriter old;
    for (const auto& file : journal.files) {
        auto ranges = nlohmann::json::array();
        for (const auto& range : file.ranges) {
            ranges.push_back({{"at", range.at}, {"old_size", range.old_bytes.size()}, {"new_size", range.new_size}, {"new_hash", to_hex(range.new_hash)}});
            old.put(range.old_bytes);
        }
        description["files"].push_back({{"file", hex_text(file.file.string())}, {"old_size", file.old_size}, {"new_size", file.new_size}, {"ranges", ranges}});
    }
    const auto text = description.dump();
    ByteWriter out;
    out.put(magic);
    out.le(static_cast<std::uint32_t>(text.size()));
    out.put(text);
    out.put(old.bytes);
    const auto digest = sha256(out.bytes);
    out.put(digest);
    return std::move(out.bytes);
}

Result<Journal> read_journal(ByteSpan data) {
    const auto broken = [] { return fail(ErrorCode::damaged, "the journal is not complete"); };
    if (data.size() < 8 + 32 || as_text(data.first(4)) != magic) return broken();
    const auto body = data.first(data.size() - 32);
    const auto digest = sha256(body);
    if (!std::equal(digest.begin(), digest.end(), data.end() - 32)) return broken();
    const auto length = load_le<std::uint32_t>(data.data() + 4);
    if (length > body.size() - 8) return broken();
    const auto text = as_text(body.subspan(8, length));
    Journal out;
    try {
        const auto description = nlohmann::json::parse(text);
        out.id = description.at("id").get<std::string>();
        out.time = description.at("time").get<std::int64_t>();
        out.title = from_hex_text(description.at("title"));
        out.source = from_hex_text(description.at("source"));
        for (const auto& entry : description.at("entries")) out.entries.push_back(from_hex_text(entry));
        std::size_t at = 8 + length;
        for (const auto& file : description.at("files")) {
            JournalFile f{from_hex_text(file.at("file")), file.at("old_size").get<std::uint64_t>(), file.at("new_size").get<std::uint64_t>(), {}};
            for (const auto& range : file.at("ranges")) {
                JournalRange r;
                r.at = range.at("at").get<std::uint64_t>();
                r.new_size = range.at("new_size").get<std::uint64_t>();
                const auto hash = from_hex(range.at("new_hash").get<std::string>());
                if (hash.size() == r.new_hash.size()) std::copy(hash.begin(), hash.end(), r.new_hash.begin());
                const auto size = range.at("old_size").get<std::uint64_t>();
                if (size > body.size() - at) return broken();
                r.old_bytes.assign(body.begin() + static_cast<std::ptrdiff_t>(at), body.begin() + static_cast<std::ptrdiff_t>(at + size));
                at += size;
                f.ranges.push_back(std::move(r));
            }
            out.files.push_back(std::move(f));
        }
    } catch (const nlohmann::json::exception&) {
        return broken();
    }
    return out;
}

}  // namespace skivet
