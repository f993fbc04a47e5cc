#include "base/keys.h"

#include "base/file_write.h"
#include "base/hash.h"
#include "base/phrase.h"

namespace skivet {
namespace {

bool is_space(char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; }

}  // namespace

void KeyRing::add(Key key) {
    for (auto& k : keys_)
        if (k.name == key.name) {
            k = std::move(key);
            return;
        }
    keys_.push_back(std::move(key));
}

void KeyRing::remove(std::string_view name) {
    keys_.erase(std::remove_if(keys_.begin(), keys_.end(), [&](const Key& k) { return k.name == name; }), keys_.end());
}

const Key* KeyRing::find(std::string_view name) const {
    for (const auto& k : keys_)
        if (k.name == name) return &k;
    return nullptr;
}

std::optional<Bytes> bytes_of_hex(std::string_view digits) {
    Bytes out;
    int half = -1;
    for (const char c : digits) {
        if (is_space(c)) continue;
        const int value = c >= '0' && c <= '9' ? c - '0' : c >= 'a' && c <= 'f' ? c - 'a' + 10 : c >= 'A' && c <= 'F' ? c - 'A' + 10 : -1;
        if (value < 0) return std::nullopt;
        if (half < 0) half = value;
        else out.push_back(static_cast<std::byte>(half * 16 + value)), half = -1;
    }
    if (half >= 0 || out.empty()) return std::nullopt;
    return out;
}

Result<Key> parse_key(std::string_view text) {
    const auto equals = text.find('=');
    if (equals == std::string_view::npos || equals == 0)
        return fail(ErrorCode::usage, "a key is written NAME=HEX, NAME=text:WORDS or NAME=@FILE");
    Key key{std::string(text.substr(0, equals)), {}};
    for (const char c : key.name)
        if (static_cast<unsigned char>(c) < 0x20) return fail(ErrorCode::usage, "a key's name cannot hold control characters");
    const auto value = text.substr(equals + 1);
    const auto nothing = [&] { return fail(ErrorCode::usage, phrase("the key \"{}\" is empty", key.name)); };
    if (value.starts_with("text:")) {
        const auto words = as_bytes(value.substr(5));
        key.bytes.assign(words.begin(), words.end());
    } else if (value.starts_with('@')) {
        SKIVET_TRY(key.bytes, read_file(std::filesystem::path(value.substr(1)), 1u << 20));
        if (auto digits = bytes_of_hex(as_text(key.bytes))) key.bytes = std::move(*digits);
    } else if (auto digits = bytes_of_hex(value)) {
        key.bytes = std::move(*digits);
    } else {
        return fail(ErrorCode::usage, phrase("the key \"{}\" is not written in pairs of hexadecimal digits", key.name),
                    "Write NAME=text:WORDS for a password, NAME=@FILE for a file");
    }
    if (key.bytes.empty()) return nothing();
    return key;
}

Result<KeyRing> load_keys(const std::filesystem::path& file) {
    KeyRing out;
    std::error_code code;
    if (!std::filesystem::exists(file, code)) return out;
    SKIVET_TRY(const auto data, read_file(file, 1u << 20));
    const auto text = as_text(data);
    int line = 0;
    for (std::size_t at = 0; at < text.size();) {
        ++line;
        const auto end = std::min(text.find('\n', at), text.size());
        const auto one = std::string_view(text).substr(at, end - at);
        at = end + 1;
        if (one.empty()) continue;
        const auto equals = one.find('=');
        auto bytes = equals == std::string_view::npos ? std::nullopt : bytes_of_hex(one.substr(equals + 1));
        if (!bytes)
            return fail(Error{ErrorCode::damaged,
                              "no key is written here",
                              {file.filename().string(), phrase("line {}", line)},
                              {},
                              "Each line is NAME=HEX"});
        out.add({std::string(one.substr(0, equals)), std::move(*bytes)});
    }
    return out;
}

Status save_keys(const KeyRing& keys, const std::filesystem::path& file) {
    std::string text;
    for (const auto& k : keys.all()) text += k.name + '=' + to_hex(k.bytes) + '\n';
    return write_file(file, as_bytes(text), {.make_folders = false, .secret = true});
}

}  // namespace skivet
