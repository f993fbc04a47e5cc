#include "cli/describe.h"

#include <fmt/format.h>
#include <CLI/CLI.hpp>

namespace skivet::cli {
namespace {

/// Commands in the order they are listed; hidden ones are left out.
std::vector<const CLI::App*> commands_of(const CLI::App& app) {
    std::vector<const CLI::App*> out;
    for (const auto* sub : app.get_subcommands({}))
        if (!sub->get_group().empty()) out.push_back(sub);
    return out;
}

/// Leaves of the tree, each with its words: "project take".
template <class Visit>
void each_command(const CLI::App& app, const std::string& words, Visit visit) {
    for (const auto* sub : commands_of(app)) {
        const auto name = words.empty() ? sub->get_name() : words + ' ' + sub->get_name();
        visit(name, *sub);
        each_command(*sub, name, visit);
    }
}

std::string replaced(std::string text, std::string_view what, std::string_view with) {
    for (std::size_t at = 0; (at = text.find(what, at)) != std::string::npos; at += with.size()) text.replace(at, what.size(), with);
    return text;
}

/// Text that roff prints as it is.
std::string roff(std::string text) {
    text = replaced(std::move(text), "\\", "\\e");
    text = replaced(std::move(text), "-", "\\-");
    if (!text.empty() && (text.front() == '.' || text.front() == '\'')) text.insert(0, "\\&");
    text = replaced(std::move(text), "\n.", "\n\\&.");
    return replaced(std::move(text), "\n", "\n.br\n");
}

/// Whether something follows it.
bool takes_value(const CLI::Option& option) { return option.get_type_size() != 0 && option.get_items_expected_max() > 0; }

/// "--as TEXT", or a positional's name.
std::string names_of(const CLI::Option& option) {
    std::string out;
    if (option.get_positional()) return fmt::format("\\fI{}\\fR", roff(option.get_single_name()));
    for (const auto& name : option.get_snames()) out += fmt::format("{}\\fB\\-{}\\fR", out.empty() ? "" : ", ", roff(name));
    for (const auto& name : option.get_lnames()) out += fmt::format("{}\\fB\\-\\-{}\\fR", out.empty() ? "" : ", ", roff(name));
    if (takes_value(option)) {
        const auto type = option.get_type_name();
        out += fmt::format(" \\fI{}\\fR", roff(type.substr(0, type.find(':'))));
    }
    return out;
}

std::vector<const CLI::Option*> options_of(const CLI::App& app) {
    std::vector<const CLI::Option*> out;
    for (const auto* option : app.get_options())
        if (!option->get_group().empty()) out.push_back(option);
    return out;
}

void put_options(std::string& out, const CLI::App& app) {
    for (const auto* option : options_of(app)) {
        auto text = option->get_description();
        // Paths of whoever describes it are nobody else's.
        if (!option->get_default_str().empty() && option->get_default_str().front() != '/')
            text += fmt::format(" (otherwise {})", option->get_default_str());
        out += fmt::format(".TP\n{}\n{}\n", names_of(*option), roff(text));
    }
}

/// The words an option takes, where it takes only some: "TEXT:{keep,split,drop}".
std::vector<std::string> choices_of(const CLI::Option& option) {
    std::vector<std::string> out;
    const auto type = option.get_type_name();
    const auto from = type.find(":{"), to = type.find('}', from);
    if (from == std::string::npos || to == std::string::npos) return out;
    for (auto& word : CLI::detail::split(type.substr(from + 2, to - from - 2), ',')) out.push_back(std::move(word));
    return out;
}

std::string first_line(const std::string& text) { return text.substr(0, text.find('\n')); }

std::string words_for_bash(const CLI::App& app) {
    std::string out;
    for (const auto* sub : commands_of(app)) out += sub->get_name() + ' ';
    for (const auto* option : options_of(app))
        for (const auto& name : option->get_lnames()) out += "--" + name + ' ';
    if (!out.empty()) out.pop_back();
    return out;
}

std::string for_bash(const CLI::App& app) {
    std::string groups, words, values;
    for (const auto* sub : commands_of(app))
        if (!commands_of(*sub).empty()) groups += (groups.empty() ? "" : "|") + sub->get_name();
    words += fmt::format("    '') words='{}' ;;\n", words_for_bash(app));
    each_command(app, {}, [&](const std::string& name, const CLI::App& sub) {
        words += fmt::format("    '{}') words='{}' ;;\n", name, words_for_bash(sub));
        for (const auto* option : options_of(sub))
            if (const auto choices = choices_of(*option); !choices.empty())
                for (const auto& long_name : option->get_lnames())
                    values += fmt::format("    '{} --{}') words='{}'; only=1 ;;\n", name, long_name, fmt::join(choices, " "));
    });
    return fmt::format(R"(# bash completion for {0}
_{1}() {{
  local cur=${{COMP_WORDS[COMP_CWORD]}} prev=${{COMP_WORDS[COMP_CWORD-1]}} command='' words='' only='' i
  for ((i = 1; i < COMP_CWORD; i++)); do
    case ${{COMP_WORDS[i]}} in
    -*) ;;
    *)
      command+="${{command:+ }}${{COMP_WORDS[i]}}"
      case $command in {2}) ;; *) break ;; esac
      ;;
    esac
  done
  case $command in
{3}  esac
  case "$command $prev" in
{4}  esac
  COMPREPLY=($(compgen -W "$words" -- "$cur"))
  if [[ -z $only && -n $command && $cur != -* ]]; then COMPREPLY+=($(compgen -f -- "$cur")); fi
}}
complete -o filenames -F _{1} {0}
)",
                       app.get_name(), replaced(app.get_name(), "-", "_"), groups, words, values);
}

/// In single quotes of zsh, inside [ ] or behind a colon.
std::string zsh_text(const std::string& text) {
    auto out = replaced(first_line(text), "'", "'\\''");
    for (const char* special : {"[", "]", ":"}) out = replaced(std::move(out), special, std::string("\\") + special);
    return out;
}

std::string zsh_arguments(const CLI::App& app, const std::string& indent) {
    std::string out = indent + "_arguments \\\n";
    for (const auto* option : options_of(app))
        for (const auto& name : option->get_lnames()) {
            std::string value;
            if (takes_value(*option)) {
                const auto choices = choices_of(*option);
                value = choices.empty() ? ":value:_files" : fmt::format(":value:({})", fmt::join(choices, " "));
            }
            out += fmt::format("{}  '*--{}[{}]{}' \\\n", indent, name, zsh_text(option->get_description()), value);
        }
    return out + indent + "  '*:file:_files'\n";
}

std::string for_zsh(const CLI::App& app) {
    const auto listed = [](const CLI::App& of, const std::string& indent) {
        std::string out = indent + "local -a commands=(\n";
        for (const auto* sub : commands_of(of))
            out += fmt::format("{}  '{}:{}'\n", indent, sub->get_name(), zsh_text(sub->get_description()));
        return out + indent + ")\n" + indent + "_describe command commands\n";
    };
    std::string out =
        fmt::format("#compdef {}\n\nif (( CURRENT == 2 )); then\n{}  return\nfi\ncase $words[2] in\n", app.get_name(), listed(app, "  "));
    for (const auto* sub : commands_of(app)) {
        out += fmt::format("  {})\n", sub->get_name());
        const auto inner = commands_of(*sub);
        if (inner.empty()) {
            out += zsh_arguments(*sub, "    ");
        } else {
            out += "    if (( CURRENT == 3 )); then\n" + listed(*sub, "      ") + "      return\n    fi\n    case $words[3] in\n";
            for (const auto* one : inner) out += fmt::format("      {})\n{}        ;;\n", one->get_name(), zsh_arguments(*one, "        "));
            out += "    esac\n";
        }
        out += "    ;;\n";
    }
    return out + "esac\n";
}

std::string for_fish(const CLI::App& app) {
    const auto quoted = [](const std::string& text) { return "'" + replaced(replaced(first_line(text), "\\", "\\\\"), "'", "\\'") + "'"; };
    std::string out = "# fish completion for " + app.get_name() + '\n';
    const auto command = app.get_name();
    for (const auto* sub : commands_of(app))
        out += fmt::format("complete -c {} -f -n __fish_use_subcommand -a {} -d {}\n", command, sub->get_name(),
                           quoted(sub->get_description()));
    each_command(app, {}, [&](const std::string& name, const CLI::App& sub) {
        std::string seen;
        for (const auto& word : CLI::detail::split(name, ' '))
            seen += (seen.empty() ? "" : "; and ") + std::string("__fish_seen_subcommand_from ") + word;
        const auto inner = commands_of(sub);
        if (!inner.empty()) {
            std::string all;
            for (const auto* one : inner) all += ' ' + one->get_name();
            for (const auto* one : inner)
                out += fmt::format("complete -c {} -f -n '{}; and not __fish_seen_subcommand_from{}' -a {} -d {}\n", command, seen, all,
                                   one->get_name(), quoted(one->get_description()));
        }
        for (const auto* option : options_of(sub))
            for (const auto& long_name : option->get_lnames()) {
                std::string takes;
                if (takes_value(*option)) {
                    const auto choices = choices_of(*option);
                    takes = choices.empty() ? " -r" : fmt::format(" -x -a '{}'", fmt::join(choices, " "));
                }
                out += fmt::format("complete -c {} -n '{}' -l {}{} -d {}\n", command, seen, long_name, takes,
                                   quoted(option->get_description()));
            }
    });
    return out;
}

}  // namespace

std::string man_page(const CLI::App& app, const std::string& version) {
    const auto name = app.get_name();
    std::string upper = name;
    for (auto& c : upper) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    std::string out = fmt::format(".TH {} 1 \"\" \"Skivet {}\" \"User Commands\"\n", roff(upper), version);
    out += fmt::format(".SH NAME\n{} \\- textures out of game archives, and back with nothing else changed\n", roff(name));
    out += fmt::format(".SH SYNOPSIS\n\\fB{}\\fR \\fICOMMAND\\fR [\\fIOPTION\\fR]... [\\fIARGUMENT\\fR]...\n", roff(name));
    out += fmt::format(".SH DESCRIPTION\n{}\n.PP\n{}\n.SH OPTIONS\n", roff(app.get_description()), roff(app.get_footer()));
    put_options(out, app);
    out += ".SH COMMANDS\n";
    each_command(app, {}, [&](const std::string& words, const CLI::App& sub) {
        std::string places;
        for (const auto* option : options_of(sub))
            if (option->get_positional())
                places += fmt::format(" {}\\fI{}\\fR{}{}", option->get_required() ? "" : "[", roff(option->get_single_name()),
                                      option->get_items_expected_max() > 1 ? "..." : "", option->get_required() ? "" : "]");
        out += fmt::format(".SS \"{}{}\"\n{}\n", roff(words), places, roff(sub.get_description()));
        put_options(out, sub);
        if (!sub.get_footer().empty()) out += ".PP\n" + roff(sub.get_footer()) + '\n';
    });
    out +=
        ".SH FILES\n"
        ".TP\n\\fI$XDG_CONFIG_HOME/skivet/cli.toml\\fR\nDefaults of options, a table for each command.\n"
        ".TP\n\\fI$XDG_CONFIG_HOME/skivet/sheets/\\fR\nSheets of your own.\n"
        ".TP\n\\fI$XDG_DATA_HOME/skivet/vault/\\fR\nOverwritten bytes, where no other vault is named.\n"
        ".SH SEE ALSO\n.BR skivet (1)\n";
    return out;
}

std::string completion(const CLI::App& app, const std::string& shell) {
    return shell == "bash" ? for_bash(app) : shell == "zsh" ? for_zsh(app) : shell == "fish" ? for_fish(app) : std::string();
}

}  // namespace skivet::cli
