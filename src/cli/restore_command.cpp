// restore, and what a start finds of deliveries that were cut short.
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/file_write.h"
#include "cli/json_line.h"
#include "cli/writing.h"
#include "delivery/beside.h"

namespace skivet::cli {

namespace fs = std::filesystem;

namespace {

/// Folders of the vaults a call looks into: the chosen one, or the default one and all of the register.
std::vector<fs::path> vault_folders(const Context& c) {
    std::vector<fs::path> out = {c.vault};
    if (c.vault_chosen) return out;
    std::error_code code;
    const auto mine = fs::weakly_canonical(fs::absolute(c.vault, code), code);
    for (auto& other : c.vaults.all())
        if (other != mine) out.push_back(std::move(other));
    return out;
}

/// One entry as it was before all deliveries of a vault. The delivery that put it there is undone when it holds nothing else and nothing
/// stands on it, because then the archive gets its very bytes back; otherwise the old content is delivered. Error `missing` when the vault
/// knows none.
Status restore_entry(Context& c, Vault& vault, const fs::path& source, const std::string& text) {
    auto address = text.find("::") == std::string::npos ? Address{source, {text}} : *parse_address(text);
    if (address.inner.empty()) return fail(ErrorCode::usage, fmt::format("\"{}\" names no entry", text));
    SKIVET_TRY(const auto history, vault.history());
    const auto& entry = address.inner.back();
    const auto holds = [&](const JournalPart& part) {
        return part.source == source && std::find(part.entries.begin(), part.entries.end(), entry) != part.entries.end();
    };
    const auto journal = std::find_if(history.rbegin(), history.rend(),
                                      [&](const Journal& j) { return std::any_of(j.parts.begin(), j.parts.end(), holds); });
    if (journal == history.rend())
        return fail(Error{ErrorCode::missing,
                          fmt::format("no delivery of \"{}\" is in the vault {}", entry, vault.folder().string()),
                          {source.string()},
                          {},
                          {}});
    const bool alone = std::none_of(history.rbegin(), journal, [&](const Journal& later) { return later.touches(source); }) &&
                       std::all_of(journal->parts.begin(), journal->parts.end(),
                                   [&](const JournalPart& part) {
                                       return part.source != source || part.entries == std::vector{entry} || part.entries == address.inner;
                                   }) &&
                       std::none_of(std::next(journal), history.rend(),
                                    [&](const Journal& j) { return std::any_of(j.parts.begin(), j.parts.end(), holds); });
    if (alone) return vault.undo(journal->id, source);
    SKIVET_TRY(const auto plan, plan_restore_entry(vault, c.context, source, address.inner));
    if (plan.empty()) return {};
    SKIVET_TRY(const auto done, vault.deliver(plan, {entry + " as it was", source, address.inner}, now()));
    (void)done;
    return {};
}

/// The newest delivery into `source` in any of the vaults: its vault and id.
Result<std::optional<std::pair<fs::path, std::string>>> newest_into(Context& c, Files& files, const std::vector<fs::path>& folders,
                                                                    const fs::path& source) {
    std::optional<std::pair<fs::path, std::string>> out;
    std::int64_t time = 0;
    for (const auto& folder : folders) {
        SKIVET_TRY(const auto history, Vault(folder, files, c.vaults).history());
        for (auto journal = history.rbegin(); journal != history.rend(); ++journal)
            if (journal->touches(source)) {
                if (!out || journal->time > time) out = std::pair(folder, journal->id), time = journal->time;
                break;
            }
    }
    return out;
}

}  // namespace

int recover(Context& c) {
    PosixFiles files;
    int code = 0;
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    for (const auto& folder : vault_folders(c)) {
        Vault vault(folder, files, c.vaults);
        const auto found = vault.recover();
        if (!found) {
            // Another vault's trouble is not this command's: its own archives are checked before anything is written.
            if (folder == c.vault) code = c.failed(found.error());
            continue;
        }
        for (const auto& journal : found->rolled_back) {
            std::string names;
            for (const auto& part : journal.parts) names += (names.empty() ? "" : ", ") + part.source.filename().string();
            c.err << fmt::format("skivet-cli: \"{}\" was cut short; the old bytes are back in {}\n", journal.title, names);
        }
        for (const auto* list : {&found->set_aside, &found->waiting})
            for (const auto& error : *list) c.err << "skivet-cli: " << error.message() << '\n';
    }
    return code;
}

int warn_of_unfinished(Context& c, const std::vector<std::string>& arguments) {
    PosixFiles files;
    int count = 0;
    for (const auto& folder : vault_folders(c))
        for (const auto& one : Vault(folder, files).unfinished())
            for (const auto& file : one.files) {
                const auto names_it = [&](const std::string& argument) {
                    const auto address = parse_address(argument);
                    return address && lies_in(file, address->source);
                };
                if (std::none_of(arguments.begin(), arguments.end(), names_it)) continue;
                ++count;
                c.err << fmt::format("skivet-cli: {} is half-written: \"{}\" {}\n", file.string(), one.title,
                                     one.running ? "is being delivered just now"
                                                 : "was cut short. Put the old bytes back with: skivet-cli restore --unfinished");
            }
    return count;
}

int restore(Context& c, const RestoreOptions& options) {
    PosixFiles files;
    const auto folders = vault_folders(c);
    const Writing writing(c);
    if (!writing.may()) return c.failed(c.cancel.check().error());
    for (const auto& folder : folders)
        for (const auto& error : Vault(folder, files).unreadable()) c.err << "skivet-cli: " << error.message() << '\n';
    if (options.unfinished) {  // `recover` has done it already
        int left = 0;
        for (const auto& folder : folders) left += static_cast<int>(Vault(folder, files).unfinished().size());
        return left > 0 ? 1 : 0;
    }
    std::error_code code;
    const auto source = options.source.empty() ? fs::path() : fs::weakly_canonical(fs::absolute(options.source, code), code);
    if (!options.addresses.empty()) {
        std::size_t failures = 0;
        int why = 0;
        for (const auto& text : options.addresses) {
            Status restored = fail(ErrorCode::missing, "no vault");
            for (const auto& folder : folders) {
                auto vault = vault_of(c, files, folder);
                restored = restore_entry(c, vault, source, text);
                if (restored || restored.error().code != ErrorCode::missing) break;
            }
            if (!restored) ++failures, why = c.failed(restored.error());
            if (c.json) c.out << dump(nlohmann::json{{"entry", text}, {"restored", restored.has_value()}}) << '\n';
        }
        return failures == 0 ? 0 : failures < options.addresses.size() ? 1 : why;
    }
    unsigned count = 0;
    if (source.empty()) {
        const auto done = vault_of(c, files, c.vault).restore_all();
        if (!done) return c.failed(done.error());
        count = *done;
    }
    while (!source.empty()) {
        if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
        const auto newest = newest_into(c, files, folders, source);
        if (!newest) return c.failed(newest.error());
        if (!*newest) break;
        auto vault = vault_of(c, files, (*newest)->first);
        if (auto undone = vault.undo((*newest)->second, source); !undone) {
            if (count > 0)
                c.err << fmt::format("skivet-cli: {} before\n",
                                     count == 1 ? "1 delivery was undone" : fmt::format("{} deliveries were undone", count));
            return c.failed(undone.error());
        }
        ++count;
    }
    if (count == 0) {
        std::string elsewhere;
        for (const auto& other : c.vaults.all()) {
            const auto history = Vault(other, files).history();
            if (history &&
                std::any_of(history->begin(), history->end(), [&](const Journal& j) { return source.empty() || j.touches(source); }))
                elsewhere += (elsewhere.empty() ? "" : ", ") + other.string();
        }
        return c.failed(
            Error{ErrorCode::missing,
                  fmt::format("there is nothing to restore: no delivery{} is in {}", source.empty() ? "" : " into " + source.string(),
                              c.vault_chosen || folders.size() == 1 ? "the vault " + c.vault.string() : "any vault"),
                  {},
                  {},
                  elsewhere.empty() ? "" : "There are some in " + elsewhere + "; choose it with --vault"});
    }
    if (c.json) c.out << nlohmann::json{{"undone", count}}.dump() << '\n';
    else if (!c.quiet) c.out << fmt::format("{} undone\n", count_of(count, "delivery", "deliveries"));
    return 0;
}

}  // namespace skivet::cli
