#include <fmt/format.h>

#include "base/text.h"
#include "sheet/sheet.h"

namespace skivet {

const Field* RecordType::with(Meaning meaning) const {
    for (const auto& f : fields)
        if (f.means == meaning) return &f;
    return nullptr;
}

const FieldValue* RecordValues::with(Meaning meaning) const {
    for (const auto& v : values)
        if (v.field->means == meaning) return &v;
    return nullptr;
}

std::uint64_t RecordValues::number(Meaning meaning, std::uint64_t otherwise) const {
    const auto* value = with(meaning);
    return value ? value->number : otherwise;
}

Result<RecordValues> read_record(const Sheet& sheet, const RecordType& type, ByteSpan data, std::uint64_t at, const ReadLimits& limits) {
    ByteReader reader(data);
    SKIVET_CHECK(reader.seek(at));
    RecordValues out;
    out.values.reserve(type.fields.size());
    for (const auto& field : type.fields) {
        FieldValue value;
        value.field = &field;
        value.at = reader.position();
        const auto named = [&](Error error) { return fail(std::move(error).within("field " + field.name)); };
        if (field.type == FieldType::uint) {
            auto raw = reader.uint(field.width, sheet.order);
            if (!raw) return named(std::move(raw).error());
            if (*raw != 0 && field.unit > ~0ull / *raw) return named(Error{ErrorCode::damaged, "the number is too large", {}, value.at, {}});
            value.number = *raw * field.unit;
        } else {
            std::uint64_t length = field.size;
            if (field.prefixed) {
                auto raw = reader.uint(field.width, sheet.order);
                if (!raw) return named(std::move(raw).error());
                length = *raw;
            }
            if (field.terminated) {
                length = 0;
                while (length < reader.remaining() && length <= limits.name_bytes && data[reader.position() + length] != std::byte{0}) ++length;
            }
            if (field.type == FieldType::text && length > limits.name_bytes)
                return named(Error{ErrorCode::limit, fmt::format("text of {} bytes is longer than the limit", grouped(length)), {}, value.at, {}});
            auto raw = reader.take(length);
            if (!raw) return named(std::move(raw).error());
            value.text = as_text(*raw);
            if (field.type == FieldType::text && !field.prefixed && !field.terminated)
                if (const auto zero = value.text.find('\0'); zero != std::string::npos) value.text.resize(zero);
            if (field.terminated) {
                auto end = reader.take(1);
                if (!end) return named(std::move(end).error());
            }
        }
        value.size = reader.position() - value.at;
        out.values.push_back(std::move(value));
    }
    out.end = reader.position();
    return out;
}

Result<Bytes> field_bytes(const Sheet& sheet, const Field& field, std::uint64_t number) {
    if (number % field.unit != 0)
        return fail(ErrorCode::unfit, fmt::format("field {}: {} is no multiple of {}", field.name, grouped(number), field.unit));
    const auto value = number / field.unit;
    if (field.width < 8 && value >> (8 * field.width) != 0)
        return fail(ErrorCode::unfit, fmt::format("field {}: {} does not fit into {} bytes", field.name, grouped(value), field.width));
    Bytes out(field.width);
    store_uint(out.data(), value, field.width, sheet.order);
    return out;
}

std::optional<std::string> recognize(const Sheet& sheet, ByteSpan head, std::uint64_t file_size, std::string_view path) {
    std::string reason;
    const auto add = [&](std::string text) { reason += (reason.empty() ? "" : ", ") + text; };
    for (const auto& rule : sheet.recognize) {
        if (rule.at) {
            if (*rule.at > head.size() || rule.bytes.size() > head.size() - *rule.at) return std::nullopt;
            if (!std::equal(rule.bytes.begin(), rule.bytes.end(), head.begin() + static_cast<std::ptrdiff_t>(*rule.at))) return std::nullopt;
            add(fmt::format("{} bytes at {}", rule.bytes.size(), *rule.at));
        }
        if (!rule.name_pattern.empty()) {
            const auto slash = path.find_last_of('/');
            if (!glob_match(rule.name_pattern, slash == std::string_view::npos ? path : path.substr(slash + 1))) return std::nullopt;
            add("its name");
        }
        if (!rule.field.empty()) {
            const auto header = read_record(sheet, sheet.header, head, sheet.header_at, ReadLimits{});
            if (!header) return std::nullopt;
            for (const auto& value : header->values)
                if (value.field->name == rule.field && value.number != file_size) return std::nullopt;
            add("its size field");
        }
    }
    return reason;
}

}  // namespace skivet
