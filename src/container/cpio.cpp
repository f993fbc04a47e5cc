// A cpio archive: header, name with a zero behind it, content, and so on; the last name is "TRAILER!!!". What the four forms of headers
// differ in is where the numbers are and how they are written. "newc" and its form with checksums: the kernel's description of the
// initramfs buffer format; "odc": POSIX.1-2001, pax, cpio Interchange Format; the old binary one: cpio(5).
#include "container/cpio.h"

#include <fmt/format.h>
#include <array>
#include <map>

#include "base/phrase.h"
#include "base/text.h"
#include "container/members.h"

namespace skivet {
namespace {

constexpr std::string_view trailer = "TRAILER!!!", here = "./";
constexpr std::uint64_t most_name = ReadLimits{}.name_bytes;
constexpr std::uint64_t record = 512;                                    // bytes; most programs fill up a whole number of them
constexpr std::uint64_t kind_of_file = 0170000, regular_file = 0100000;  // of the mode

struct Field {
    std::uint8_t at = 0, width = 0;  ///< bytes in the header; 0 wide: this form has none
};
struct Form {
    std::string_view magic;
    std::uint8_t header = 0;  ///< bytes
    std::uint8_t align = 1;   ///< what name and content are padded to, counted from the header, with zeros
    std::uint8_t base = 0;    ///< of the digits; 0: words of 16 bits, of two the upper one first
    ByteOrder order = ByteOrder::little;
    Field device, minor, inode, mode, links, name, size, check;
};
constexpr Form newc(std::string_view magic, bool check) {
    return {magic, 110, 4, 16, {}, {62, 8}, {70, 8}, {6, 8}, {14, 8}, {38, 8}, {94, 8}, {54, 8}, check ? Field{102, 8} : Field{}};
}
constexpr Form binary(std::string_view magic, ByteOrder order) {
    return {magic, 26, 2, 0, order, {2, 2}, {}, {4, 2}, {6, 2}, {12, 2}, {20, 2}, {22, 4}, {}};
}
constexpr std::array<Form, 5> forms = {{newc("070701", false),
                                        newc("070702", true),
                                        {"070707", 76, 1, 8, {}, {6, 6}, {}, {12, 6}, {18, 6}, {36, 6}, {59, 6}, {65, 11}, {}},
                                        binary("\xC7\x71", ByteOrder::little),
                                        binary("\x71\xC7", ByteOrder::big)}};

const Form* form_of(ByteSpan header) {
    for (const auto& form : forms)
        if (header.size() >= form.header && as_text(header.first(form.magic.size())) == form.magic) return &form;
    return nullptr;
}

/// Nothing where the form has no such field, or something else than digits is there.
std::optional<std::uint64_t> number(const Form& form, Field field, ByteSpan header) {
    if (field.width == 0) return std::nullopt;
    std::uint64_t value = 0;
    if (form.base == 0) {
        for (unsigned i = 0; i < field.width; i += 2) value = value << 16 | load_uint(header.data() + field.at + i, 2, form.order);
        return value;
    }
    for (unsigned i = 0; i < field.width; ++i) {
        const auto c = static_cast<char>(header[field.at + i]);
        const int digit = c >= '0' && c <= '9' ? c - '0' : c >= 'a' && c <= 'f' ? c - 'a' + 10 : c >= 'A' && c <= 'F' ? c - 'A' + 10 : 99;
        if (digit >= form.base) return std::nullopt;
        value = value * form.base + static_cast<std::uint64_t>(digit);
    }
    return value;
}

/// False, and nothing is written, where the field has no room for it.
[[nodiscard]] bool put_number(const Form& form, Field field, std::uint64_t value, Bytes& header) {
    const unsigned bits = form.base == 16 ? field.width * 4u : form.base == 8 ? field.width * 3u : field.width * 8u;
    if (value >> bits) return false;
    if (form.base == 0) {
        for (unsigned i = 0; i < field.width; i += 2)
            store_uint(header.data() + field.at + i, value >> (8 * (field.width - 2 - i)), 2, form.order);
        return true;
    }
    // With the case of the digits that are there.
    const auto old = as_text(ByteSpan(header).subspan(6, form.header - 6u));
    const bool small = old.find_first_of("abcdef") != std::string::npos;
    const auto digits = form.base == 8 ? fmt::format("{:0{}o}", value, field.width)
                        : small        ? fmt::format("{:0{}x}", value, field.width)
                                       : fmt::format("{:0{}X}", value, field.width);
    const auto bytes = as_bytes(digits);
    std::copy(bytes.begin(), bytes.end(), header.begin() + field.at);
    return true;
}

std::uint64_t padded_size(const Form& form, std::uint64_t size) { return (size + form.align - 1) / form.align * form.align; }

/// Of "070702": the sum of the content's bytes, of 32 bits.
std::uint32_t sum_of(ByteSpan content) {
    std::uint32_t sum = 0;
    for (const auto b : content) sum += static_cast<std::uint8_t>(b);
    return sum;
}

/// A file's header with nothing special: everybody reads it, its owner writes it, no time.
Bytes plain_header(const Form& form) {
    Bytes out(form.header, form.base == 0 ? std::byte{0} : std::byte{'0'});
    const auto magic = as_bytes(form.magic);
    std::copy(magic.begin(), magic.end(), out.begin());
    return put_number(form, form.mode, regular_file | 0644, out) ? out : Bytes();
}

/// `old`, a header and a name, with another name, and of other content.
Result<Bytes> head(const Form& form, ByteSpan old, const std::string* name, const Content* content) {
    Bytes out(old.begin(), old.end());
    // A sum of 32 bits has room in any case.
    if (content && (!put_number(form, form.size, content->size(), out) ||
                    (form.check.width != 0 && !put_number(form, form.check, sum_of(ByteSpan(*content)), out))))
        return fail(ErrorCode::unfit, phrase("{} bytes are more than its header can say", grouped(content->size())));
    if (name) {
        // As the others are named in this archive.
        const auto all = (as_text(old.subspan(form.header)).starts_with(here) ? std::string(here) : std::string()) + *name + '\0';
        if (all.size() > most_name || !put_number(form, form.name, all.size(), out))
            return fail(ErrorCode::unfit, "its name is too long for the archive");
        const auto bytes = as_bytes(all);
        out.resize(form.header);
        out.insert(out.end(), bytes.begin(), bytes.end());
        out.resize(static_cast<std::size_t>(padded_size(form, out.size())));
    }
    return out;
}

class CpioContainer final : public MemberArchive {
public:
    explicit CpioContainer(FileView file) : MemberArchive(std::move(file)) {}
    std::string kind() const override { return "cpio"; }
    std::string read_only() const override { return problems_.empty() ? std::string() : phrase("a damaged archive is only read"); }
    Status list(const ReadLimits& limits);

protected:
    Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override;
    Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override;

private:
    static constexpr std::size_t no_file = ~std::size_t{0};
    struct Member {
        const Form* form = nullptr;
        std::uint64_t content_at = 0;  ///< behind its own header and name; Place::data_at is that of the name with the content
        std::size_t file = no_file;    ///< index into files_: it has other names
    };
    std::vector<Member> members_;
    std::vector<std::vector<std::size_t>> files_;  ///< entries that are one file: one has its content ("newc"), or each
    const Form* form_ = nullptr;                   ///< of the first header
    Bytes mark_;                                   ///< the trailer
    std::uint64_t largest_inode_ = 0;

    ByteSpan header_of(ByteSpan file, std::size_t entry) const {
        return file.subspan(static_cast<std::size_t>(entries_[entry].at), members_[entry].form->header);
    }
    bool has_content(std::size_t entry) const { return places_[entry].size > 0 && places_[entry].data_at == members_[entry].content_at; }
    Result<Bytes> head_of(ByteSpan file, std::size_t entry, const std::string* name, const Content* content) const;
    Result<Bytes> new_members(ByteSpan file, std::span<const NewEntry> added) const;
};

Status CpioContainer::list(const ReadLimits& limits) {
    SKIVET_TRY(const auto file, file_.bytes());
    std::map<std::array<std::uint64_t, 3>, std::vector<std::size_t>> names_of;  // of device and inode
    for (;;) {
        const auto rest = file.subspan(static_cast<std::size_t>(end_));
        const auto damaged = [&](std::string what) -> Status {
            Error error{ErrorCode::damaged, std::move(what), {}, end_, "The archive is cut off or damaged; what follows is not listed"};
            if (entries_.empty()) return fail(std::move(error));
            problems_.push_back(std::move(error));
            return {};
        };
        const auto* form = form_of(rest);
        if (!form) {
            SKIVET_CHECK(damaged("no cpio header is there"));
            break;
        }
        if (!form_) form_ = form;
        const auto name = number(*form, form->name, rest), size = number(*form, form->size, rest), mode = number(*form, form->mode, rest);
        const auto left = rest.size() - form->header;
        const auto head = name && *name <= left ? padded_size(*form, form->header + *name) : 0;
        if (!name || *name == 0 || *name > most_name || !size || head == 0 || head > rest.size() || *size > rest.size() - head) {
            SKIVET_CHECK(damaged(phrase("an entry with a name of {} and content of {} bytes, {} are left", name ? grouped(*name) : "?",
                                        size ? grouped(*size) : "?", grouped(left))));
            break;
        }
        const auto end = std::min<std::uint64_t>(head + padded_size(*form, *size), rest.size());
        auto path = as_text(rest.subspan(form->header, static_cast<std::size_t>(*name)));
        if (const auto zero = path.find('\0'); zero != std::string::npos) path.resize(zero);
        if (path == trailer) {
            mark_.assign(rest.begin(), rest.begin() + static_cast<std::ptrdiff_t>(end));
            break;
        }
        largest_inode_ = std::max(largest_inode_, number(*form, form->inode, rest).value_or(0));
        if (path.starts_with(here)) path.erase(0, here.size());
        if (mode && (*mode & kind_of_file) == regular_file && !path.empty() && path.back() != '/') {
            if (entries_.size() >= limits.entries) return fail(ErrorCode::limit, phrase("more than {} entries", grouped(limits.entries)));
            Entry e;
            e.path = std::move(path);
            e.size = e.stored = *size;
            e.method = "stored";
            e.at = end_;
            if (number(*form, form->links, rest).value_or(1) > 1)
                names_of[{number(*form, form->device, rest).value_or(0), number(*form, form->minor, rest).value_or(0),
                          number(*form, form->inode, rest).value_or(0)}]
                    .push_back(entries_.size());
            entries_.push_back(std::move(e));
            members_.push_back({form, end_ + head});
            places_.push_back({end_ + head, *size, end_ + end});
        }
        end_ += end;
    }
    for (auto& [key, names] : names_of) {
        if (names.size() < 2) continue;
        const auto with_content = std::find_if(names.rbegin(), names.rend(), [&](std::size_t i) { return places_[i].size > 0; });
        for (const auto i : names) {
            members_[i].file = files_.size();
            if (places_[i].size > 0 || with_content == names.rend()) continue;
            places_[i].data_at = places_[*with_content].data_at;
            entries_[i].size = places_[i].size = places_[*with_content].size;
        }
        files_.push_back(std::move(names));
    }
    number_doubles();
    return {};
}

Result<Bytes> CpioContainer::unpack_entry(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(auto data, MemberArchive::unpack_entry(entry, limits));
    SKIVET_TRY(const auto file, file_.bytes());
    const auto& form = *members_[entry].form;
    if (const auto stated = number(form, form.check, header_of(file, entry)); stated && has_content(entry))
        if (const auto sum = sum_of(data); sum != *stated)
            return fail(in_entry(*this, entry,
                                 Error{ErrorCode::damaged,
                                       phrase("its bytes add up to {:08x}, its header says {:08x}", sum, *stated),
                                       {},
                                       entries_[entry].at,
                                       {}}));
    return data;
}

/// Header and name; without a name the one that is there.
Result<Bytes> CpioContainer::head_of(ByteSpan file, std::size_t entry, const std::string* name, const Content* content) const {
    const auto& m = members_[entry];
    const auto old =
        file.subspan(static_cast<std::size_t>(entries_[entry].at), static_cast<std::size_t>(m.content_at - entries_[entry].at));
    auto out = head(*m.form, old, name, content);
    if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
    return out;
}

/// Entries that come, one behind the other.
Result<Bytes> CpioContainer::new_members(ByteSpan file, std::span<const NewEntry> added) const {
    Bytes out;
    auto inode = largest_inode_;
    for (const auto& entry : added) {
        const auto& form = entry.like ? *members_[*entry.like].form : *form_;
        Bytes old = plain_header(form);
        if (entry.like) {
            const auto at = static_cast<std::ptrdiff_t>(entries_[*entry.like].at);
            old.assign(file.begin() + at, file.begin() + static_cast<std::ptrdiff_t>(members_[*entry.like].content_at));
        }
        // A file of its own, with a number that no other has where there is room for one.
        if (!put_number(form, form.links, 1, old) || !put_number(form, form.inode, ++inode, old)) inode = 0;
        auto fresh = head(form, old, &entry.path, &entry.bytes);
        if (!fresh) return fail(std::move(fresh).error().within(entry.path));
        out.insert(out.end(), fresh->begin(), fresh->end());
        out.insert(out.end(), entry.bytes.begin(), entry.bytes.end());
        out.resize(static_cast<std::size_t>(out.size() - entry.bytes.size() + padded_size(form, entry.bytes.size())));
    }
    return out;
}

Result<WritePlan> CpioContainer::plan_entries(const Changes& changes, const ReadLimits&) const {
    SKIVET_TRY(const auto file, file_.bytes());
    Stretches out;
    std::map<std::size_t, const std::string*> names;
    for (const auto& name : changes.renamed) names[name.entry] = &name.path;
    const auto new_name = [&](std::size_t entry) {
        const auto found = names.find(entry);
        return found == names.end() ? nullptr : std::exchange(found->second, nullptr);
    };
    const auto put_head = [&](std::size_t entry, const Content* content) -> Status {
        SKIVET_TRY(auto bytes, head_of(file, entry, new_name(entry), content));
        const auto at = entries_[entry].at;
        out.put(at, members_[entry].content_at - at, std::move(bytes));
        return {};
    };
    std::map<std::size_t, const Replacement*> given;  // to a file with several names
    for (const auto& r : changes.replaced) {
        SKIVET_TRY(const auto old, bytes_of(r.entry));
        if (std::equal(old.begin(), old.end(), r.bytes.begin(), r.bytes.end())) continue;
        std::vector<std::size_t> holders = {r.entry};
        if (const auto linked = members_[r.entry].file; linked != no_file) {
            const auto [first, only] = given.emplace(linked, &r);
            if (!only && first->second->bytes == r.bytes) continue;
            if (!only)
                return fail(
                    in_entry(*this, r.entry,
                             Error{ErrorCode::unfit,
                                   phrase("is the same file as \"{}\", which gets other content", entries_[first->second->entry].path),
                                   {},
                                   entries_[r.entry].at,
                                   "Change one of them; the other follows"}));
            const auto& all = files_[linked];
            holders.clear();
            std::copy_if(all.begin(), all.end(), std::back_inserter(holders), [&](std::size_t i) { return has_content(i); });
            if (holders.empty()) holders = {all.back()};
        }
        for (const auto entry : holders) {
            const auto& m = members_[entry];
            SKIVET_CHECK(put_head(entry, &r.bytes));
            out.put(m.content_at, places_[entry].end - m.content_at, padded(r.bytes, m.form->align));
        }
    }
    for (const auto& name : changes.renamed)
        if (names[name.entry]) SKIVET_CHECK(put_head(name.entry, nullptr));
    for (const auto entry : changes.removed) {
        if (members_[entry].file != no_file) return is_linked(entry);
        out.put(entries_[entry].at, places_[entry].end - entries_[entry].at, {});
    }
    SKIVET_TRY(auto fresh, new_members(file, changes.added));
    out.put_last(end_, std::move(fresh), mark_, record);
    return std::move(out).plan(file_);
}

class CpioKind final : public ContainerKind {
public:
    std::string name() const override { return "cpio"; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t, std::string_view path) const override {
        const auto* form = form_of(head);
        if (!form) return std::nullopt;
        if (form->base != 0) return Recognized{ranks::magic, "a cpio header"};
        if (lower(path).ends_with(".cpio")) return Recognized{ranks::weak, "an old cpio header, and its name"};
        return std::nullopt;
    }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        auto out = std::make_shared<CpioContainer>(std::move(file));
        SKIVET_CHECK(out->list(context.limits));
        return std::shared_ptr<const Container>(std::move(out));
    }
};

}  // namespace

std::shared_ptr<const ContainerKind> cpio_kind() { return std::make_shared<CpioKind>(); }

}  // namespace skivet
