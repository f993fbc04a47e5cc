#include <utf8.h>
#include <iterator>

#include "base/hash.h"
#include "base/phrase.h"
#include "base/text.h"
#include "sheet/sheet.h"

namespace skivet {
namespace {

/// Stored text as UTF-8.
std::string decoded(TextCode code, ByteSpan raw, ByteOrder order) {
    switch (code) {
        case TextCode::cp437: return cp437_to_utf8(as_text(raw));
        case TextCode::latin1: {
            std::string out;
            for (const auto b : raw) utf8::unchecked::append(static_cast<std::uint32_t>(b), std::back_inserter(out));
            return out;
        }
        case TextCode::utf16: {
            std::string out;
            for (std::size_t i = 0; i + 1 < raw.size(); i += 2) {
                auto c = static_cast<std::uint32_t>(load_uint(raw.data() + i, 2, order));
                if (c >= 0xD800 && c < 0xDC00 && i + 3 < raw.size()) {
                    const auto low = static_cast<std::uint32_t>(load_uint(raw.data() + i + 2, 2, order));
                    if (low >= 0xDC00 && low < 0xE000) c = 0x10000 + ((c - 0xD800) << 10) + (low - 0xDC00), i += 2;
                }
                utf8::unchecked::append(c, std::back_inserter(out));
            }
            return out;
        }
        default: return as_text(raw);
    }
}

Status read_number(const Field& field, ByteOrder order, ByteReader& reader, FieldValue& value) {
    SKIVET_TRY(auto raw, reader.uint(field.width, order));
    if (field.is_signed && field.width < 8 && raw >> (8 * field.width - 1)) raw |= ~0ull << (8 * field.width);
    const auto too_large = [&] { return fail(Error{ErrorCode::damaged, "the number is too large", {}, value.at, {}}); };
    if (field.power) {
        if (raw > 62) return too_large();
        value.number = (1ull << raw) * field.unit;
    } else {
        if (field.unit > 1 && raw != 0 && field.unit > ~0ull / raw) return too_large();
        value.number = raw * field.unit;
    }
    value.number += static_cast<std::uint64_t>(field.add);
    return {};
}

Status read_text(const Field& field, ByteOrder order, ByteSpan data, ByteReader& reader, const ReadLimits& limits,
                 const RecordValues& record, FieldValue& value) {
    const std::size_t unit = field.code == TextCode::utf16 ? 2 : 1;
    std::uint64_t length = field.size;
    if (!field.length_field.empty()) {
        length = record.named(field.length_field)->number;
        if (length > data.size())
            return fail(Error{ErrorCode::damaged, phrase("its length is said to be {}", grouped(length)), {}, value.at, {}});
        length *= unit;
    }
    if (field.prefixed) {
        SKIVET_TRY(length, reader.uint(field.width, order));
        length *= unit;
    }
    if (field.terminated) {
        length = 0;
        const auto zero_at = [&](std::size_t at) { return data[at] == std::byte{0} && (unit == 1 || data[at + 1] == std::byte{0}); };
        while (length + unit <= reader.remaining() && length <= limits.name_bytes && !zero_at(reader.position() + length)) length += unit;
    }
    if (field.type == FieldType::text && length > limits.name_bytes)
        return fail(Error{ErrorCode::limit, phrase("text of {} bytes is longer than the limit", grouped(length)), {}, value.at, {}});
    SKIVET_TRY(auto raw, reader.take(length));
    if (field.type == FieldType::bytes) {
        value.text = as_text(raw);
        return {};
    }
    value.text = decoded(field.code, raw, order);
    if (!field.prefixed && !field.terminated && field.length_field.empty())
        if (const auto zero = value.text.find('\0'); zero != std::string::npos) value.text.resize(zero);
    if (field.terminated) SKIVET_CHECK(reader.skip(unit));
    return {};
}

}  // namespace

const Field* RecordType::with(Meaning meaning) const {
    for (const auto& f : fields)
        if (f.means == meaning) return &f;
    return nullptr;
}

const Field* RecordType::named(std::string_view name) const {
    for (const auto& f : fields)
        if (f.name == name) return &f;
    return nullptr;
}

std::optional<std::uint64_t> RecordType::fixed_size() const {
    std::uint64_t sum = 0;
    for (const auto& f : fields) {
        if (f.means == Meaning::record_size || f.type == FieldType::pad) return std::nullopt;
        if (f.prefixed || f.terminated || !f.length_field.empty()) return std::nullopt;
        if (f.bit_at) continue;
        sum += f.type == FieldType::uint || f.type == FieldType::real ? f.width : f.size;
    }
    return sum;
}

const FieldValue* RecordValues::with(Meaning meaning) const {
    for (const auto& v : values)
        if (v.field->means == meaning) return &v;
    return nullptr;
}

const FieldValue* RecordValues::named(std::string_view name) const {
    for (const auto& v : values)
        if (v.field->name == name) return &v;
    return nullptr;
}

std::uint64_t RecordValues::number(Meaning meaning, std::uint64_t otherwise) const {
    const auto* value = with(meaning);
    return value ? value->number : otherwise;
}

namespace {

/// `index` of `count`: which of the values of an array; without a count the fields follow one another.
Status read_fields(const RecordType& type, ByteOrder sheet_order, ByteSpan data, std::uint64_t at, std::uint64_t index, std::uint64_t count,
                   const ReadLimits& limits, RecordValues& out) {
    ByteReader reader(data);
    SKIVET_CHECK(reader.seek(at));
    auto array_at = at;
    out.values.resize(type.fields.size());
    std::optional<std::uint64_t> stated_end;
    for (std::size_t i = 0; i < type.fields.size(); ++i) {
        const auto& field = type.fields[i];
        auto& value = out.values[i];
        const auto order = field.order.value_or(sheet_order);
        value.field = &field;
        value.at = reader.position();
        value.number = 0;
        value.text.clear();
        const auto named = [&](Error error) { return fail(std::move(error).within(phrase("field {}", field.name))); };
        if (count > 0 && !field.bit_at) {
            const auto width = field.type == FieldType::uint || field.type == FieldType::real ? field.width : field.size;
            if (auto there = reader.seek(array_at + index * width); !there) return named(std::move(there).error());
            array_at += count * width;
            value.at = reader.position();
        }
        if (field.bit_at) {  // a part of the last whole number before it
            std::size_t whole = i;
            while (whole > 0 && type.fields[whole].bit_at) --whole;
            const auto& parent = out.values[whole];
            value.at = parent.at;
            value.size = parent.size;
            const auto raw = load_uint(data.data() + parent.at, parent.field->width, parent.field->order.value_or(sheet_order));
            const auto bits = raw >> *field.bit_at & (field.bit_count >= 64 ? ~0ull : (1ull << field.bit_count) - 1);
            value.number =
                (field.power ? 1ull << std::min<std::uint64_t>(bits, 62) : bits) * field.unit + static_cast<std::uint64_t>(field.add);
            continue;
        }
        Status read;
        switch (field.type) {
            case FieldType::uint:
            case FieldType::real: read = read_number(field, order, reader, value); break;
            case FieldType::pad: {
                const auto past = reader.position() % field.size;
                if (past) read = reader.skip(field.size - past);
                break;
            }
            default: read = read_text(field, order, data, reader, limits, out, value); break;
        }
        if (!read) return named(std::move(read).error());
        value.size = reader.position() - value.at;
        if (field.means == Meaning::record_size) stated_end = at + value.number;
    }
    out.end = reader.position();
    if (stated_end) {
        if (*stated_end < out.end || *stated_end > data.size())
            return fail(Error{ErrorCode::damaged, phrase("the record is said to end at {}", hex(*stated_end)), {}, at, {}});
        out.end = *stated_end;
    }
    return {};
}

}  // namespace

Status read_record(const RecordType& type, ByteOrder order, ByteSpan data, std::uint64_t at, const ReadLimits& limits, RecordValues& out) {
    return read_fields(type, order, data, at, 0, 0, limits, out);
}

Status read_array_record(const RecordType& type, ByteOrder order, ByteSpan data, std::uint64_t at, std::uint64_t index, std::uint64_t count,
                         const ReadLimits& limits, RecordValues& out) {
    const auto size = type.fixed_size().value_or(0);
    if (index >= count || at > data.size() || (size > 0 && count > (data.size() - at) / size))
        return fail_at(ErrorCode::damaged, at,
                       phrase("{} values of {} bytes do not lie in {} bytes", grouped(count), size, grouped(data.size())));
    return read_fields(type, order, data, at, index, count, limits, out);
}

Result<RecordValues> read_record(const Sheet& sheet, const RecordType& type, ByteSpan data, std::uint64_t at, const ReadLimits& limits) {
    RecordValues out;
    SKIVET_CHECK(read_record(type, sheet.order, data, at, limits, out));
    return out;
}

std::uint64_t raw_number(const Field& field, std::uint64_t number) {
    number = (number - static_cast<std::uint64_t>(field.add)) / field.unit;
    if (!field.power) return number;
    std::uint64_t power = 0;
    while (power < 63 && (1ull << power) < number) ++power;
    return power;
}

Result<Bytes> field_bytes(const Field& field, ByteOrder sheet_order, std::uint64_t number, ByteSpan old) {
    const auto moved = number - static_cast<std::uint64_t>(field.add);
    if (moved % field.unit != 0)
        return fail(ErrorCode::unfit, phrase("field {}: {} is no multiple of {}", field.name, grouped(number), field.unit));
    auto value = raw_number(field, number);
    if (field.power && (1ull << value) * field.unit != moved)
        return fail(ErrorCode::unfit, phrase("field {}: {} is no power of two", field.name, grouped(number)));
    const auto order = field.order.value_or(sheet_order);
    if (field.bit_at) {
        const auto mask = field.bit_count >= 64 ? ~0ull : (1ull << field.bit_count) - 1;
        if (value > mask)
            return fail(ErrorCode::unfit, phrase("field {}: {} does not fit into {} bits", field.name, grouped(value), field.bit_count));
        Bytes out(old.begin(), old.end());
        const auto width = static_cast<unsigned>(out.size());
        store_uint(out.data(), (load_uint(out.data(), width, order) & ~(mask << *field.bit_at)) | value << *field.bit_at, width, order);
        return out;
    }
    const auto bits = 8 * field.width - (field.is_signed ? 1 : 0);
    if (bits < 64 && value >> bits != 0)
        return fail(ErrorCode::unfit, phrase("field {}: {} does not fit into {} bytes", field.name, grouped(value), field.width));
    Bytes out(field.width);
    store_uint(out.data(), value, field.width, order);
    return out;
}

Result<Bytes> text_bytes(TextCode code, ByteOrder order, std::string_view text) {
    const auto cannot = [&] { return fail(ErrorCode::unfit, phrase("\"{}\" has a character that names here cannot have", text)); };
    if (!is_utf8(text)) return cannot();
    if (code == TextCode::utf8) return Bytes(as_bytes(text).begin(), as_bytes(text).end());
    ByteWriter out;
    for (auto at = text.begin(); at != text.end();) {
        const auto c = utf8::unchecked::next(at);
        if (code == TextCode::utf16) {
            const auto put = [&](std::uint32_t unit) {
                std::byte two[2];
                store_uint(two, unit, 2, order);
                out.put(ByteSpan(two, 2));
            };
            if (c >= 0x10000) put(0xD800 + ((c - 0x10000) >> 10)), put(0xDC00 + ((c - 0x10000) & 0x3FF));
            else put(c);
        } else if (c < (code == TextCode::latin1 ? 0x100u : 0x80u)) {
            out.le(static_cast<std::uint8_t>(c));
        } else {
            return cannot();
        }
    }
    return std::move(out.bytes);
}

Result<Bytes> sum_field_bytes(const Field& field, ByteOrder order, ByteSpan data) {
    if (field.type == FieldType::bytes) return sum_digest(field.sum, data);
    auto number = sum_number(field.sum, data);
    if (field.width < 8) number &= (1ull << (8 * field.width)) - 1;  // a checksum in a narrower field is cut to it
    return field_bytes(field, order, number, {});
}

std::string sum_mismatch(const FieldValue& value, ByteSpan data) {
    const auto& field = *value.field;
    if (field.type == FieldType::bytes) {
        const auto digest = sum_digest(field.sum, data);
        if (as_text(digest) == value.text) return {};
        return phrase("its digest is {}…, the field {} says {}…", to_hex(ByteSpan(digest).first(4)), field.name,
                      to_hex(as_bytes(value.text).first(4)));
    }
    auto number = sum_number(field.sum, data);
    if (field.width < 8) number &= (1ull << (8 * field.width)) - 1;
    if (number == value.number) return {};
    constexpr std::string_view names[] = {"CRC-32", "Adler-32", "FNV-1a", "FNV-1a", "xxHash", "xxHash", "SHA-1", "SHA-256", "sum"};
    return phrase("{} is {:0{}x}, the {} says {:0{}x}", names[static_cast<std::size_t>(field.sum)], number, 2 * field.width,
                  field.is_over(Over::unpacked) || field.is_over(Over::stored) ? said("directory") : said("header"), value.number,
                  2 * field.width);
}

Result<Bytes> field_bytes(const Sheet& sheet, const Field& field, std::uint64_t number) {
    return field_bytes(field, sheet.order, number, {});
}

Result<HeaderRead> read_header(const Sheet& sheet, ByteSpan file, const ReadLimits& limits) {
    HeaderRead out;
    out.order = sheet.order;
    if (sheet.header_at < 0) {
        const auto back = static_cast<std::uint64_t>(-sheet.header_at);
        if (back > file.size())
            return fail(ErrorCode::damaged, phrase("the header is {} bytes before the end of {} bytes", back, grouped(file.size())));
        out.at = file.size() - back;
    } else {
        out.at = static_cast<std::uint64_t>(sheet.header_at);
    }
    // The field that says the byte order is read first, with its own or either order.
    if (const auto* field = sheet.header.with(Meaning::byte_order)) {
        bool found = false;
        for (const auto order : {ByteOrder::little, ByteOrder::big}) {
            RecordValues values;
            if (!read_record(sheet.header, order, file, out.at, limits, values)) continue;
            const auto* value = values.with(Meaning::byte_order);
            const auto name = field->values.find(raw_number(*field, value->number));
            if (name == field->values.end() || (name->second == "little") != (order == ByteOrder::little)) continue;
            out.order = order;
            found = true;
            break;
        }
        if (!found) return fail(ErrorCode::damaged, phrase("field {}: says no byte order the sheet knows", field->name));
    }
    SKIVET_CHECK(read_record(sheet.header, out.order, file, out.at, limits, out.values));
    return out;
}

namespace {

/// Whether one condition holds, and what it says; an empty text is a condition that cannot be looked at here.
std::optional<std::string> holds(const Sheet& sheet, const Recognition& rule, ByteSpan head, std::uint64_t file_size,
                                 std::string_view path) {
    std::string reason;
    const auto add = [&](const std::string& text) { reason += (reason.empty() ? "" : ", ") + text; };
    if (!rule.any.empty()) {
        std::optional<std::string> first;
        for (const auto& one : rule.any)
            if (!first) first = holds(sheet, one, head, file_size, path);
        if (!first) return std::nullopt;
        add(*first);
    }
    if (rule.size && file_size != unknown_size) {
        if (file_size < rule.size->first || file_size > rule.size->second) return std::nullopt;
        add(said("its size"));
    }
    if (rule.at) {
        // What counts from the end cannot be seen in a file's beginning; then the other conditions decide, and opening checks it.
        std::uint64_t at = static_cast<std::uint64_t>(*rule.at);
        if (*rule.at < 0) {
            if (head.size() != file_size) return reason;
            if (static_cast<std::uint64_t>(-*rule.at) > file_size) return std::nullopt;
            at = file_size - static_cast<std::uint64_t>(-*rule.at);
        }
        if (at > head.size() || rule.bytes.size() > head.size() - at) return std::nullopt;
        if (!std::equal(rule.bytes.begin(), rule.bytes.end(), head.begin() + static_cast<std::ptrdiff_t>(at))) return std::nullopt;
        add(*rule.at < 0 ? phrase("{} bytes at {} from the end", rule.bytes.size(), -*rule.at)
                         : phrase("{} bytes at {}", rule.bytes.size(), *rule.at));
    }
    if (!rule.name_pattern.empty()) {
        const auto slash = path.find_last_of('/');
        if (!glob_match(rule.name_pattern, slash == std::string_view::npos ? path : path.substr(slash + 1))) return std::nullopt;
        add(said("its name"));
    }
    if (!rule.field.empty()) {
        if (sheet.header_at < 0 && head.size() != file_size) return reason;
        const auto header = read_header(sheet, head, ReadLimits{});
        if (!header) return std::nullopt;
        const auto* value = header->values.named(rule.field);
        if (!value) return std::nullopt;
        const auto [from, to] = rule.range.value_or(std::pair{file_size, file_size});
        if (value->number < from || value->number > to) return std::nullopt;
        add(rule.range ? phrase("its field {}", rule.field) : said("its size field"));
    }
    return reason;
}

}  // namespace

std::optional<std::string> recognize(const Sheet& sheet, ByteSpan head, std::uint64_t file_size, std::string_view path) {
    std::string reason;
    bool tables = false;
    for (const auto& rule : sheet.recognize) {
        const auto held = holds(sheet, rule, head, file_size, path);
        if (!held) return std::nullopt;
        if (!held->empty()) reason += (reason.empty() ? "" : ", ") + *held;
        tables = tables || rule.tables_hold;
    }
    if (reason.empty() && !tables) return std::nullopt;
    return reason;
}

Result<std::string> named_value(const FieldValue& value) {
    const auto found = value.field->values.find(raw_number(*value.field, value.number));
    if (found != value.field->values.end()) return found->second;
    return fail_at(ErrorCode::unsupported, value.at, phrase("field {}: the sheet has no name for {}", value.field->name, value.number),
                   "Add it to the field's values in the sheet");
}

std::uint64_t path_hash(const HashSpec& spec, unsigned width, std::string_view path) {
    auto text = spec.lower ? lower(path) : std::string(path);
    std::replace(text.begin(), text.end(), spec.slash == '/' ? '\\' : '/', spec.slash);
    const auto h = hash_number(spec.kind, spec.seed, spec.multiplier, spec.prefix + text);
    return width < 8 ? h & ((1ull << (8 * width)) - 1) : h;
}

}  // namespace skivet
