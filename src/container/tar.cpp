// The blocks of a tar archive: a header of 512 bytes with the checksum of its own bytes, then the data, padded to whole blocks. Numbers are
// octal text; GNU writes larger ones in base 256 with the highest bit set. A pax header is an entry of its own before the one it describes;
// its records "LENGTH KEY=VALUE\n" override the header's fields (POSIX.1-2001, pax Interchange Format).
#include "container/tar.h"

#include <fmt/format.h>
#include <charconv>
#include <map>
#include <set>

#include "base/phrase.h"
#include "base/text.h"
#include "container/members.h"

namespace skivet {
namespace {

constexpr std::uint64_t block = 512, tape_record = 20 * block;
constexpr std::size_t size_at = 124, size_bytes = 12, sum_at = 148, type_at = 156, magic_at = 257, prefix_at = 345;
constexpr std::size_t name_bytes = 100, link_at = 157, prefix_bytes = 155;

std::uint64_t blocks_for(std::uint64_t bytes) { return (bytes + block - 1) / block * block; }

std::string text_field(ByteSpan header, std::size_t at, std::size_t size) {
    auto text = as_text(header.subspan(at, size));
    if (const auto zero = text.find('\0'); zero != std::string::npos) text.resize(zero);
    return text;
}

/// Octal digits between spaces and zeros, or base 256.
std::optional<std::uint64_t> number_field(ByteSpan header, std::size_t at, std::size_t size) {
    const auto field = header.subspan(at, size);
    if ((field[0] & std::byte{0x80}) != std::byte{0}) {
        std::uint64_t value = static_cast<std::uint64_t>(field[0] & std::byte{0x3F});
        for (std::size_t i = 1; i < size; ++i) {
            if (value >> 56) return std::nullopt;
            value = value << 8 | static_cast<std::uint64_t>(field[i]);
        }
        return value;
    }
    std::uint64_t value = 0;
    bool any = false;
    for (const auto b : field) {
        const auto c = static_cast<char>(b);
        if (c >= '0' && c <= '7') value = value << 3 | static_cast<std::uint64_t>(c - '0'), any = true;
        else if (any || (c != ' ' && c != '\0')) break;
    }
    return value;
}

/// The sum of the header's bytes with spaces in place of the sum itself.
std::uint32_t checksum(ByteSpan header) {
    std::uint32_t sum = 8 * ' ';
    for (std::size_t i = 0; i < block; ++i)
        if (i < sum_at || i >= sum_at + 8) sum += static_cast<std::uint8_t>(header[i]);
    return sum;
}

bool header_holds(ByteSpan header) { return header.size() >= block && number_field(header, sum_at, 8) == checksum(header.first(block)); }

/// As POSIX writes it; GNU's own manner has spaces there, and no prefix.
bool is_posix(ByteSpan header) { return as_text(header.subspan(magic_at, 6)) == std::string_view("ustar\0", 6); }

void put_number(std::byte* field, std::size_t size, std::uint64_t value) {
    if (value >> (3 * (size - 1)) == 0) {
        const auto text = fmt::format("{:0{}o}", value, size - 1);
        for (std::size_t i = 0; i + 1 < size; ++i) field[i] = static_cast<std::byte>(text[i]);
        field[size - 1] = std::byte{0};
    } else {  // more than octal digits can say: base 256
        for (std::size_t i = size; i-- > 1; value >>= 8) field[i] = static_cast<std::byte>(value & 0xFF);
        field[0] = std::byte{0x80};
    }
}

void put_checksum(Bytes& header) {
    const auto text = fmt::format("{:06o}", checksum(header));
    for (std::size_t i = 0; i < 6; ++i) header[sum_at + i] = static_cast<std::byte>(text[i]);
    header[sum_at + 6] = std::byte{0};
    header[sum_at + 7] = std::byte{' '};
}

struct PaxValue {
    std::string value;
    std::size_t at = 0;  ///< in the record's data
};

/// Calls `use(record, key)` for every record of a pax header; stops at one that does not hold.
template <class Use>
void each_pax_record(std::string_view text, Use use) {
    for (std::size_t at = 0; at < text.size();) {
        std::size_t length = 0;
        const auto parsed = std::from_chars(text.data() + at, text.data() + text.size(), length);
        if (parsed.ec != std::errc{} || length == 0 || length > text.size() - at) break;
        const auto record = text.substr(at, length);
        const auto space = record.find(' '), equals = record.find('=');
        use(record, space < equals && equals != std::string_view::npos ? record.substr(space + 1, equals - space - 1) : std::string_view());
        at += length;
    }
}
std::string pax_record(std::string_view key, std::string_view value) {
    auto size = key.size() + value.size() + 3;  // a space, "=" and the end of the line; then its own digits
    for (auto digits = std::to_string(size).size();; ++digits)
        if (std::to_string(size + digits).size() == digits) return fmt::format("{} {}={}\n", size + digits, key, value);
}

void put_text(Bytes& header, std::size_t at, std::size_t size, std::string_view text) {
    const auto bytes = as_bytes(text.substr(0, size));
    std::fill_n(header.begin() + static_cast<std::ptrdiff_t>(at), size, std::byte{0});
    std::copy(bytes.begin(), bytes.end(), header.begin() + static_cast<std::ptrdiff_t>(at));
}

/// A header of its own before the entry's, like it, with data.
void put_extra(Bytes& out, Bytes header, char type, std::string_view name, std::string_view data) {
    header[type_at] = static_cast<std::byte>(type);
    put_text(header, 0, name_bytes, name);
    if (is_posix(header)) put_text(header, prefix_at, prefix_bytes, {});
    put_number(header.data() + size_at, size_bytes, data.size());
    put_checksum(header);
    out.insert(out.end(), header.begin(), header.end());
    const auto bytes = as_bytes(data);
    out.insert(out.end(), bytes.begin(), bytes.end());
    out.resize(static_cast<std::size_t>(blocks_for(out.size())));
}

/// An entry's headers, `group`, its own one last, with another name and, where it is given, size. A name that the header has no room for
/// goes where the archive's writer would put it: into a pax record, or GNU's header 'L'.
Bytes with_name(ByteSpan group, std::string_view name, std::optional<std::uint64_t> size) {
    const auto own_at = group.size() - block;
    Bytes own(group.begin() + static_cast<std::ptrdiff_t>(own_at), group.end());
    Bytes out;
    std::string records;
    for (std::size_t at = 0; at < own_at;) {
        const auto header = group.subspan(at, block);
        const auto bytes = static_cast<std::size_t>(number_field(header, size_at, size_bytes).value_or(0));
        const auto end = at + block + static_cast<std::size_t>(blocks_for(bytes));
        const auto type = static_cast<char>(header[type_at]);
        if (type == 'x') {
            each_pax_record(as_text(group.subspan(at + block, bytes)), [&](std::string_view record, std::string_view key) {
                if (key != "path" && !(key == "size" && size)) records += record;
            });
        } else if (type != 'L') {
            out.insert(out.end(), group.begin() + static_cast<std::ptrdiff_t>(at), group.begin() + static_cast<std::ptrdiff_t>(end));
        }
        at = end;
    }
    // POSIX.1-2001, ustar: the prefix, "/" and the name.
    std::string_view prefix, rest = name;
    if (is_posix(own) && name.size() > name_bytes)
        if (const auto slash = name.find('/', name.size() - name_bytes - 1); slash != std::string_view::npos && slash <= prefix_bytes)
            prefix = name.substr(0, slash), rest = name.substr(slash + 1);
    if (rest.size() > name_bytes) {
        prefix = {};
        if (is_posix(own)) records += pax_record("path", name);
        else put_extra(out, own, 'L', "././@LongLink", std::string(name) + '\0');
    }
    if (!records.empty()) put_extra(out, own, 'x', "PaxHeader", records);
    put_text(own, 0, name_bytes, rest);
    if (is_posix(own)) put_text(own, prefix_at, prefix_bytes, prefix);
    if (size) put_number(own.data() + size_at, size_bytes, *size);
    put_checksum(own);
    out.insert(out.end(), own.begin(), own.end());
    return out;
}

/// A file's header with nothing special: everybody reads it, its owner writes it, no time.
Bytes plain_header() {
    Bytes out(block);
    put_number(out.data() + 100, 8, 0644);
    for (const int at : {108, 116}) put_number(out.data() + at, 8, 0);
    put_number(out.data() + 136, size_bytes, 0);
    out[type_at] = std::byte{'0'};
    put_text(out, magic_at, 6, "ustar");
    put_text(out, magic_at + 6, 2, "00");
    return out;
}

std::optional<PaxValue> pax_value(ByteSpan data, std::string_view key) {
    const auto text = as_text(data);
    std::optional<PaxValue> out;
    for (std::size_t at = 0; at < text.size();) {
        std::size_t length = 0;
        const auto parsed = std::from_chars(text.data() + at, text.data() + text.size(), length);
        if (parsed.ec != std::errc{} || length == 0 || length > text.size() - at) break;
        const auto start = static_cast<std::size_t>(parsed.ptr - text.data()) + 1;
        if (start < at + length) {
            const auto record = std::string_view(text).substr(start, at + length - start - 1);
            if (const auto equals = record.find('='); equals != std::string_view::npos && record.substr(0, equals) == key)
                out = PaxValue{std::string(record.substr(equals + 1)), start + equals + 1};
        }
        at += length;
    }
    return out;
}

class TarContainer final : public MemberArchive {
public:
    explicit TarContainer(FileView file) : MemberArchive(std::move(file)) {}
    std::string kind() const override { return "tar"; }
    Status list(const ReadLimits& limits);

protected:
    Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override;

private:
    struct Member {
        std::uint64_t header_at = 0;    ///< its own header; what describes it before that begins at Entry::at
        std::uint64_t pax_size_at = 0;  ///< where a pax header states the size; 0: nowhere
        std::size_t pax_size_digits = 0;
    };
    std::vector<Member> members_;
    bool has_others_ = false;       ///< folders, links, devices
    std::set<std::string> linked_;  ///< what hard links name

    ByteSpan headers_of(ByteSpan file, std::size_t entry) const {
        const auto at = entries_[entry].at;
        return file.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(places_[entry].data_at - at));
    }
    Bytes new_members(ByteSpan file, std::span<const NewEntry> added) const;
    Status change_size(std::size_t entry, ByteSpan file, std::uint64_t size, Stretches& changes) const;
};

Status TarContainer::list(const ReadLimits& limits) {
    SKIVET_TRY(const auto file, file_.bytes());
    std::uint64_t at = 0, first = 0;
    std::optional<std::string> long_name, long_link;
    Member pending;
    std::optional<std::uint64_t> pax_bytes;
    bool sparse = false;
    const auto forget = [&] {
        long_name.reset();
        long_link.reset();
        pax_bytes.reset();
        pending = {};
        sparse = false;
    };
    while (at + block <= file.size()) {
        const auto header = file.subspan(static_cast<std::size_t>(at), block);
        if (std::all_of(header.begin(), header.end(), [](auto b) { return b == std::byte{0}; })) break;  // the end is two such blocks
        const auto wrong = [&](std::string what) {
            return fail(
                Error{ErrorCode::damaged, std::move(what), {phrase("header {}", entries_.size() + 1)}, at, "The archive is damaged here"});
        };
        if (!header_holds(header)) {
            if (entries_.empty()) return wrong("its checksum does not hold");
            problems_.push_back(wrong("its checksum does not hold; what follows is not listed").value());
            break;
        }
        auto size = number_field(header, size_at, size_bytes);
        if (!size) return wrong("its size is too large");
        const auto type = static_cast<char>(header[type_at]);
        const auto data_at = at + block;
        // Links, devices and folders have no data whatever the size field says (POSIX.1-2001, ustar).
        if (type >= '1' && type <= '6') size = 0;
        const bool about_the_next = type == 'x' || type == 'L' || type == 'K' || type == 'g';
        if (!about_the_next && pax_bytes) size = pax_bytes;
        const bool cut = *size > file.size() - data_at;
        if (cut) {
            problems_.push_back(Error{ErrorCode::damaged,
                                      phrase("needs {} bytes, has {}", grouped(*size), grouped(file.size() - data_at)),
                                      {phrase("header {}", entries_.size() + 1)},
                                      at,
                                      "The archive is cut off"});
            break;
        }
        const auto data = file.subspan(static_cast<std::size_t>(data_at), static_cast<std::size_t>(*size));
        if (about_the_next) {
            if (*size > 1u << 20) return wrong("an extended header of more than 1 MB");
            if (type == 'L') {
                auto name = as_text(data);
                while (!name.empty() && name.back() == '\0') name.pop_back();
                long_name = std::move(name);
            }
            if (type == 'K') {
                long_link = as_text(data);
                while (!long_link->empty() && long_link->back() == '\0') long_link->pop_back();
            }
            if (type == 'x') {
                if (auto path = pax_value(data, "path")) long_name = std::move(path->value);
                if (auto link = pax_value(data, "linkpath")) long_link = std::move(link->value);
                if (const auto stated = pax_value(data, "size")) {
                    std::uint64_t value = 0;
                    const auto& digits = stated->value;
                    if (std::from_chars(digits.data(), digits.data() + digits.size(), value).ec == std::errc{}) pax_bytes = value;
                    pending.pax_size_at = data_at + stated->at;
                    pending.pax_size_digits = digits.size();
                }
                sparse = sparse || pax_value(data, "GNU.sparse.major") || pax_value(data, "GNU.sparse.map");
            }
        } else {
            if ((type == '0' || type == '\0' || type == '7') && !sparse) {
                if (entries_.size() >= limits.entries)
                    return fail(ErrorCode::limit, phrase("more than {} entries", grouped(limits.entries)));
                Entry e;
                const auto prefix = as_text(header.subspan(magic_at, 5)) == "ustar" && header[magic_at + 5] == std::byte{0}
                                        ? text_field(header, prefix_at, 155)
                                        : std::string();
                const auto name = text_field(header, 0, 100);
                e.path = long_name ? *long_name : prefix.empty() ? name : prefix + '/' + name;
                e.size = e.stored = *size;
                e.method = "stored";
                e.at = first;
                if (e.path.empty() || e.path.back() != '/') {
                    pending.header_at = at;
                    members_.push_back(pending);
                    places_.push_back({data_at, *size, std::min(data_at + blocks_for(*size), file.size())});
                    entries_.push_back(std::move(e));
                }
            }
            has_others_ = has_others_ || (type != '0' && type != '\0' && type != '7');
            if (type == '1') linked_.insert(long_link ? *long_link : text_field(header, link_at, name_bytes));
            forget();
        }
        at = data_at + blocks_for(*size);
        if (!about_the_next) first = at;
    }
    end_ = at;
    number_doubles();
    if (entries_.empty() && at == 0) return fail(ErrorCode::unsupported, "no tar header");
    return {};
}

/// The header, and the pax record where there is one, with another size.
Status TarContainer::change_size(std::size_t entry, ByteSpan file, std::uint64_t size, Stretches& changes) const {
    const auto& m = members_[entry];
    const auto old = file.subspan(static_cast<std::size_t>(m.header_at), block);
    Bytes header(old.begin(), old.end());
    put_number(header.data() + size_at, size_bytes, size);
    put_checksum(header);
    changes.put(m.header_at, block, std::move(header));
    if (m.pax_size_at) {
        const auto digits = fmt::format("{:0{}}", size, m.pax_size_digits);
        if (digits.size() != m.pax_size_digits)
            return fail(ErrorCode::unfit, "the new size has more digits than its pax header has room for");
        const auto bytes = as_bytes(digits);
        changes.put(m.pax_size_at, bytes.size(), Bytes(bytes.begin(), bytes.end()));
    }
    return {};
}

/// Entries that come, one behind the other.
Bytes TarContainer::new_members(ByteSpan file, std::span<const NewEntry> added) const {
    Bytes out;
    for (const auto& entry : added) {
        const auto plain = plain_header();
        const auto headers = with_name(entry.like ? headers_of(file, *entry.like) : ByteSpan(plain), entry.path, entry.bytes.size());
        out.insert(out.end(), headers.begin(), headers.end());
        out.insert(out.end(), entry.bytes.begin(), entry.bytes.end());
        out.resize(static_cast<std::size_t>(blocks_for(out.size())));
    }
    return out;
}

Result<WritePlan> TarContainer::plan_entries(const Changes& changes, const ReadLimits&) const {
    SKIVET_TRY(const auto file, file_.bytes());
    Stretches out;
    if (changes.added.empty() && changes.removed.size() == entries_.size() && !has_others_)
        return fail(ErrorCode::unsupported, "a tar with nothing in it is none any more", "Leave one entry, or remove the file");
    std::map<std::size_t, std::string> names;
    for (const auto& name : changes.renamed) names[name.entry] = name.path;
    for (const auto entry : changes.removed) names[entry] = {};  // none: it is taken out
    for (const auto& [entry, name] : names)
        if (linked_.contains(entries_[entry].path)) return is_linked(entry);
    const auto put_name = [&](std::size_t entry, const std::string& name, std::optional<std::uint64_t> size) {
        const auto headers = headers_of(file, entry);
        out.put(entries_[entry].at, headers.size(), with_name(headers, name, size));
    };
    for (const auto& r : changes.replaced) {
        SKIVET_TRY(const auto old, bytes_of(r.entry));
        if (std::equal(old.begin(), old.end(), r.bytes.begin(), r.bytes.end())) continue;
        if (const auto name = names.find(r.entry); name != names.end()) {
            put_name(r.entry, name->second, r.bytes.size());
            names.erase(name);
        } else if (r.bytes.size() != old.size()) {
            if (auto done = change_size(r.entry, file, r.bytes.size(), out); !done)
                return fail(in_entry(*this, r.entry, std::move(done).error()));
        }
        const auto& place = places_[r.entry];
        out.put(place.data_at, place.end - place.data_at, padded(r.bytes, block));
    }
    for (const auto& [entry, name] : names) {
        if (!name.empty()) put_name(entry, name, std::nullopt);
        else out.put(entries_[entry].at, places_[entry].end - entries_[entry].at, {});
    }
    // The end is two blocks of zeros; some programs fill up whole records.
    static const Bytes mark(2 * block);
    out.put_last(end_, new_members(file, changes.added), mark, file.size() % tape_record == 0 ? tape_record : block);
    return std::move(out).plan(file_);
}

class TarKind final : public ContainerKind {
public:
    std::string name() const override { return "tar"; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t, std::string_view path) const override {
        if (head.size() < block || !header_holds(head)) return std::nullopt;
        if (as_text(head.subspan(magic_at, 5)) == "ustar")
            return Recognized{ranks::checked, "\"ustar\" at 257 and a header whose checksum holds"};
        if (lower(path).ends_with(".tar") && head[0] != std::byte{0})
            return Recognized{ranks::weak, "a first block whose checksum holds, and its name"};
        return std::nullopt;
    }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        auto tar = std::make_shared<TarContainer>(std::move(file));
        SKIVET_CHECK(tar->list(context.limits));
        return std::shared_ptr<const Container>(std::move(tar));
    }
};

}  // namespace

std::shared_ptr<const ContainerKind> tar_kind() { return std::make_shared<TarKind>(); }

}  // namespace skivet
