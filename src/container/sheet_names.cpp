// The paths of entries: out of their records, tables of names, patterns, and dictionaries of hashes.
#include <fmt/format.h>
#include <algorithm>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/sheet_lister.h"

namespace skivet {
namespace {

/// A name out of "{folder}/{name}.{extension}": a word that is empty takes the sign before it along.
std::string fill_in(std::string_view pattern, const std::function<std::string(std::string_view)>& word) {
    std::string out, between;
    bool first = true;
    for (std::size_t at = 0; at < pattern.size();) {
        if (pattern[at] != '{') {
            between += pattern[at++];
            continue;
        }
        const auto end = std::min(pattern.find('}', at), pattern.size());
        const auto value = word(pattern.substr(at + 1, end - at - 1));
        if (!value.empty()) {
            if (!out.empty() || first) out += between;
            out += value;
        }
        first = false;
        between.clear();
        at = end + 1;
    }
    return out + between;
}

}  // namespace

Status SheetContainer::Lister::load_dictionary() {
    if (!sheet_.hash) return {};
    const auto add = [&](std::string_view path) {
        if (path.empty() || path.front() == '#') return;
        if (const auto* field = sheet_.record.with(Meaning::path_hash)) known_.emplace(path_hash(*sheet_.hash, field->width, path), path);
    };
    if (!sheet_.hash->dictionary.empty() && !sheet_.folder.empty()) {
        const auto file = std::filesystem::path(sheet_.folder) / sheet_.hash->dictionary;
        std::error_code code;
        if (std::filesystem::exists(file, code)) {
            SKIVET_TRY(const auto data, read_file(file, 256u << 20));
            const auto text = as_text(data);
            for (std::size_t at = 0; at < text.size();) {
                const auto end = std::min(text.find('\n', at), text.size());
                auto line = std::string_view(text).substr(at, end - at);
                while (!line.empty() && line.back() == '\r') line.remove_suffix(1);
                add(line);
                at = end + 1;
            }
        }
    }
    for (const auto& path : context_.known_paths) add(path);
    return {};
}

Status SheetContainer::Lister::read_names() {
    SKIVET_TRY(names_.at, place(sheet_.names->at, "names"));
    names_.end = image_.size();
    if (!sheet_.names->size_field.empty()) {
        const auto* size = out_.header_.values.named(sheet_.names->size_field);
        if (size->number > image_.size() - names_.at)
            return fail_at(ErrorCode::damaged, size->at,
                           phrase("the names are said to have {} bytes, only {} are there", grouped(size->number),
                                  grouped(image_.size() - names_.at)));
        names_.end = names_.at + size->number;
    }
    out_.names_at_ = names_.at;
    out_.names_end_ = names_.end;
    return {};
}

Result<std::string> SheetContainer::Lister::name_at(std::uint64_t at) {
    RecordValues value;
    const auto end = sheet_.names ? names_.end : image_.size();
    if (at >= end) return fail_at(ErrorCode::damaged, at, "the name is said to lie behind the names");
    SKIVET_CHECK(read_record(name_type_, out_.header_.order, image_.first(static_cast<std::size_t>(end)), at, limits_, value));
    names_.used += value.end - at;
    names_.first = std::min(names_.first, at);
    names_.last = std::max(names_.last, value.end);
    return value.values[0].text;
}

Result<std::string> SheetContainer::Lister::name_of_number(std::uint64_t number, std::uint64_t said_at) {
    if (names_.starts.empty())
        for (auto at = names_.at; at < names_.end && names_.starts.size() < limits_.entries;) {
            names_.starts.push_back(at);
            const auto width = sheet_.names->prefix;
            if (width > 0) {
                if (names_.end - at < width) break;
                at += width + load_uint(image_.data() + at, width, out_.header_.order);
            } else {
                while (at < names_.end && image_[static_cast<std::size_t>(at)] != std::byte{0}) ++at;
                ++at;
            }
        }
    if (number >= names_.starts.size()) return fail_at(ErrorCode::damaged, said_at, phrase("there is no name {}", number));
    return name_at(names_.starts[static_cast<std::size_t>(number)]);
}

Result<std::string> SheetContainer::Lister::path_of(const std::string& folder, const std::map<std::string, std::string>* words) {
    std::string name;
    if (const auto* offset = record_.with(Meaning::name_offset)) {
        SKIVET_TRY(name, name_at(names_.at + offset->number));
    } else if (const auto* index = record_.with(Meaning::name_index); index || (sheet_.names && sheet_.names->in_order)) {
        SKIVET_TRY(name, name_of_number(index ? index->number : records_ - 1, index ? index->at : record_.end));
    } else if (const auto* plain = record_.with(Meaning::name)) {
        name = plain->text;
    }
    std::string path;
    if (const auto* whole = record_.with(Meaning::path)) path = whole->text;
    // {number}, {number:4} with zeros in front, {field:x8} in hexadecimal digits.
    const auto field_word = [&](std::string_view which) -> std::string {
        const auto colon = which.find(':');
        const auto what = which.substr(0, colon);
        auto form = colon == std::string_view::npos ? std::string_view() : which.substr(colon + 1);
        const bool digits_of_16 = form.starts_with('x');
        if (digits_of_16) form.remove_prefix(1);
        const int width = form.size() == 1 && form[0] >= '1' && form[0] <= '9' ? form[0] - '0' : 1;
        const auto* value = what == "number" ? nullptr : record_.named(what);
        if (value && value->field->type == FieldType::text) return value->text;
        if (!value && what != "number") return {};
        const auto number = value ? value->number : out_.entries_.size();
        return digits_of_16 ? fmt::format("{:0{}x}", number, width) : fmt::format("{:0{}}", number, width);
    };
    const auto word = [&](std::string_view which) -> std::string {
        if (words)
            if (const auto found = words->find(std::string(which)); found != words->end()) return found->second;
        if (which == "folder") {
            const auto* own = record_.with(Meaning::folder);
            return own ? own->text : folder;
        }
        if (which == "extension") {
            const auto* own = record_.with(Meaning::extension);
            return own ? own->text : std::string();
        }
        if (which == "path" || which == "name") return which == "path" ? path : name;
        return field_word(which);
    };
    if (!sheet_.path_of.empty()) path = fill_in(sheet_.path_of, word);
    else if (words || path.empty()) path = fill_in("{folder}/{name}.{extension}", word);
    else if (!folder.empty()) path = folder + '/' + path;
    std::replace(path.begin(), path.end(), '\\', '/');
    if (const auto* hash = record_.with(Meaning::path_hash); hash && path.empty()) {
        const auto known = known_.find(hash->number);
        if (known == known_.end()) out_.unnamed_.emplace(hash->number, out_.entries_.size());
        path = known != known_.end() ? known->second : fmt::format("#{:0{}x}", hash->number, 2 * hash->field->width);
        std::replace(path.begin(), path.end(), '\\', '/');
    }
    return path;
}

}  // namespace skivet
