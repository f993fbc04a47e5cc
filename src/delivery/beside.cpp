#include "delivery/beside.h"

#include <sys/stat.h>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

Result<WritePlan> plan_override(const fs::path& folder, std::span<const AddressedBytes> pieces) {
    WritePlan out;
    std::set<std::string> taken;
    std::error_code code;
    for (const auto& piece : pieces) {
        const auto& path = piece.inner.back();
        const auto inside = safe_relative_path(path);
        if (inside.empty() || inside != path)
            return fail(ErrorCode::usage, phrase("\"{}\" is no path for a loose file", path), "Deliver this piece into its archive");
        if (!taken.insert(lower(inside)).second)
            return fail(ErrorCode::usage, phrase("two pieces would be the loose file \"{}\"", inside),
                        "Deliver one of them into its archive");
        SKIVET_TRY(const auto file, path_inside(folder, inside));
        if (!fs::exists(file, code)) {
            out.add(plan_new_file(file, piece.bytes));
            continue;
        }
        SKIVET_TRY(const auto view, FileView::open(file));
        SKIVET_TRY(auto one, plan_whole_file(view, piece.bytes));
        out.add(std::move(one));
    }
    return out;
}

Result<WritePlan> plan_patch_archive(const ReadContext& context, const Container& source, const fs::path& file,
                                     std::span<const AddressedBytes> pieces) {
    std::error_code code;
    if (fs::exists(file, code))
        return fail(ErrorCode::usage, phrase("{} is there already", file.string()), "Choose another name, or deliver into it");
    std::vector<Replacement> entries;
    for (const auto& piece : pieces) {
        if (piece.inner.size() != 1)
            return fail(ErrorCode::unsupported, phrase("\"{}\" lies in an archive inside the archive", piece.inner.back()),
                        "Deliver this piece into its archive");
        const auto entry = source.find(piece.inner.front());
        if (!entry) return fail(ErrorCode::missing, phrase("there is no entry \"{}\"", piece.inner.front()));
        entries.push_back({*entry, piece.bytes});
    }
    SKIVET_TRY(auto bytes, source.patch_archive(entries, context.limits));
    return plan_new_file(file, std::move(bytes));
}

Result<WritePlan> plan_restore_entry(const Vault& vault, const ReadContext& context, const fs::path& source,
                                     const std::vector<std::string>& inner) {
    std::error_code code;
    const bool folder = fs::is_directory(source, code);
    const auto file = fs::weakly_canonical(folder ? source / inner.front() : source, code);
    SKIVET_TRY(const auto history, vault.history());
    for (const auto& journal : history)
        for (const auto& part : journal.parts)
            for (const auto& f : part.files)
                if (!folder && part.source == fs::weakly_canonical(source, code) && f.file != file)
                    return fail(ErrorCode::unsupported,
                                phrase("{} keeps its data in {} as well, so one entry alone cannot be put back", file.filename().string(),
                                       f.file.filename().string()),
                                "Restore the archive or undo the delivery");
    SKIVET_TRY(const auto view, vault.original(file, context.limits.inflated_bytes));
    Bytes content;
    if (folder && inner.size() == 1) {
        SKIVET_TRY(const auto bytes, view.bytes());
        content.assign(bytes.begin(), bytes.end());
    } else {
        SKIVET_TRY(const auto before, open_container(context, view));
        SKIVET_TRY(content, read_entry(context, *before, folder ? std::vector<std::string>(inner.begin() + 1, inner.end()) : inner));
    }
    SKIVET_TRY(const auto now, open_source(context, source));
    const auto there = read_entry(context, *now, inner);
    const bool is_gone = !there && there.error().code == ErrorCode::missing;
    std::vector<AddressedChange> changes;
    changes.push_back({is_gone ? AddressedChange::What::add : AddressedChange::What::replace, inner, std::move(content)});
    return plan_changes(context, *now, std::move(changes));
}

std::vector<std::string> broken_links(const WritePlan& plan) {
    std::vector<std::string> out;
    for (const auto& file : plan.files) {
        struct stat info {};
        if (file.way == Way::rebuild && ::stat(file.file.c_str(), &info) == 0 && info.st_nlink > 1)
            out.push_back(phrase("{} has {} names (hard links); only this one gets the new content", file.file.string(), info.st_nlink));
    }
    return out;
}

}  // namespace skivet
