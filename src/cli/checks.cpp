#include "cli/checks.h"

#include <fmt/format.h>
#include <algorithm>
#include <charconv>

#include "cli/terminal.h"

namespace skivet::cli {

namespace {

std::vector<std::string> names_of(const CLI::App& app) {
    std::vector<std::string> out;
    for (const auto* sub : app.get_subcommands({}))
        if (!sub->get_group().empty()) out.push_back(sub->get_name());
    return out;
}

}  // namespace

std::string unknown_command(const CLI::App& app, const std::vector<std::string>& arguments) {
    const CLI::App* group = &app;
    std::string before;
    for (const auto& word : arguments) {
        if (word.empty() || word.front() == '-') return {};
        const auto names = names_of(*group);
        if (names.empty()) return {};
        const auto all = group->get_subcommands({});  // hidden ones, too
        const auto found = std::find_if(all.begin(), all.end(), [&](const CLI::App* sub) { return sub->get_name() == word; });
        if (found == all.end()) {
            const auto meant = nearest(word, names);
            return fmt::format("there is no command \"{}{}\"{}", before, word,
                               meant.empty() ? "" : fmt::format("; \"{}{}\" is one", before, meant));
        }
        group = *found;
        before += word + " ";
    }
    return {};
}

CLI::Validator word_or_number(std::vector<std::string> words, unsigned least, unsigned most) {
    std::string about;
    for (const auto& word : words) about += word + ", ";
    return {[=](const std::string& text) -> std::string {
                if (std::find(words.begin(), words.end(), text) != words.end()) return {};
                unsigned number = 0;
                const auto [rest, code] = std::from_chars(text.data(), text.data() + text.size(), number);
                if (code == std::errc() && rest == text.data() + text.size() && number >= least && number <= most) return {};
                return fmt::format("\"{}\" is none of: {}a number from {} to {}", text, about, least, most);
            },
            about + fmt::format("{}-{}", least, most), ""};
}

void add_shard(CLI::App* command, Shard& shard) {
    command
        ->add_option_function<std::string>(
            "--shard",
            [&shard](const std::string& text) {
                const auto parsed = parse_shard(text);
                if (!parsed) throw CLI::ValidationError("--shard", parsed.error().message());
                shard = *parsed;
            },
            "Only the K-th of N parts of all that is named: the same parts on every machine, balanced by bytes")
        ->type_name("K/N");
}

}  // namespace skivet::cli
