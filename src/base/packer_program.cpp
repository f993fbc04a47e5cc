#include "base/packer_program.h"

#include <fmt/format.h>
#include <unistd.h>
#include <algorithm>
#include <system_error>

#include "base/child_program.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// A program by its path, or by its name in the usual folders.
std::optional<fs::path> found(const std::string& name) {
    std::error_code code;
    const auto runs = [&](const fs::path& path) { return fs::is_regular_file(path, code) && ::access(path.c_str(), X_OK) == 0; };
    if (name.find('/') != std::string::npos) {
        const auto path = fs::absolute(name, code);
        return !code && runs(path) ? std::optional(path.lexically_normal()) : std::nullopt;
    }
    for (const auto* folder : {"/usr/bin", "/usr/local/bin", "/bin"})
        if (runs(fs::path(folder) / name)) return fs::path(folder) / name;
    return std::nullopt;
}

/// What the sandbox shows of the system: programs and libraries, and the packer itself; everything read-only, nothing of the user's.
std::vector<std::string> sandboxed(const fs::path& program, std::span<const std::string> arguments, const ProgramLimits& limits) {
    // util-linux's prlimit sets what the kernel counts by process.
    std::vector<std::string> out = {"prlimit",
                                    fmt::format("--as={}", limits.memory),
                                    fmt::format("--cpu={}", limits.time.count() / 1000 + 1),
                                    "--core=0",
                                    "--nofile=64",
                                    fmt::format("--nproc={}", limits.processes),
                                    "--",
                                    "bwrap",
                                    "--unshare-all",
                                    "--die-with-parent",
                                    "--new-session",
                                    "--clearenv",
                                    "--setenv",
                                    "PATH",
                                    "/usr/bin:/bin",
                                    "--setenv",
                                    "LC_ALL",
                                    "C.UTF-8",
                                    "--ro-bind",
                                    "/usr",
                                    "/usr"};
    std::error_code code;
    for (const auto* name : {"bin", "lib", "lib32", "lib64", "sbin"}) {
        const auto path = fs::path("/") / name;
        if (fs::is_symlink(path, code)) out.insert(out.end(), {"--symlink", fs::read_symlink(path, code).string(), path.string()});
        else if (fs::is_directory(path, code)) out.insert(out.end(), {"--ro-bind", path.string(), path.string()});
    }
    out.insert(out.end(), {"--ro-bind-try", "/etc/ld.so.cache", "/etc/ld.so.cache", "--ro-bind-try", "/etc/alternatives",
                           "/etc/alternatives", "--proc", "/proc", "--dev", "/dev", "--tmpfs", "/tmp"});
    // Of its folder only the program itself and libraries beside it: the folder may be the user's home.
    if (!program.string().starts_with("/usr/")) {
        std::vector<std::string> shown = {program.string()};
        for (fs::directory_iterator at(program.parent_path(), code), end; !code && at != end && shown.size() < 64; at.increment(code))
            if (at->path().filename().string().find(".so") != std::string::npos && at->is_regular_file(code))
                shown.push_back(at->path().string());
        for (const auto& path : shown) out.insert(out.end(), {"--ro-bind", path, path});
    }
    out.insert(out.end(), {"--chdir", "/tmp", "--", program.string()});
    out.insert(out.end(), arguments.begin(), arguments.end());
    return out;
}

Result<Bytes> run(const PackerProgram& packer, const std::vector<std::string>& command, ByteSpan input, std::uint64_t most,
                  const ProgramLimits& limits, std::optional<std::uint64_t> size) {
    const auto named = [&](Error error) { return fail(std::move(error).within(phrase("packer {}", packer.name))); };
    if (!found("bwrap") || !found("prlimit"))
        return named({ErrorCode::missing,
                      "bubblewrap is not installed, and packer programs run only inside it",
                      {},
                      {},
                      "Install the package bubblewrap"});
    const auto program = found(command.front());
    if (!program)
        return named(
            {ErrorCode::missing, phrase("there is no program {}", command.front()), {}, {}, "Give its path in the project's settings"});
    std::vector<std::string> arguments;
    for (auto word : std::span(command).subspan(1)) {
        for (const auto& [sign, number] :
             {std::pair<std::string_view, std::optional<std::uint64_t>>{"{size}", size}, {"{packed}", input.size()}})
            for (auto at = word.find(sign); at != std::string::npos; at = word.find(sign))
                word.replace(at, sign.size(), number ? std::to_string(*number) : "");
        arguments.push_back(std::move(word));
    }
    const auto words = sandboxed(*program, arguments, limits);
    auto ended = run_child(words, std::span(&input, 1), {limits.time, most});
    if (!ended) return named(std::move(ended).error());
    if (ended->stopped == ChildEnd::Stopped::time)
        return named({ErrorCode::limit,
                      phrase("did not end within {} s", static_cast<double>(limits.time.count()) / 1000),
                      {},
                      {},
                      "The program hangs, or the data is not what it takes"});
    if (ended->stopped == ChildEnd::Stopped::output)
        return named({ErrorCode::limit,
                      phrase("gives more than {} bytes", grouped(most)),
                      {},
                      {},
                      "The data is not what it takes, or its size is another"});
    if (!ended->by_itself || ended->code != 0)
        return named({ErrorCode::damaged,
                      phrase("the program {}{}{}", ended->by_itself ? phrase("ended with {}", ended->code) : "was ended",
                             ended->said.empty() ? "" : ": ", ended->said),
                      {},
                      {},
                      "The data is not what it takes, or its command in the project's settings is wrong"});
    return std::move(ended->output);
}

}  // namespace

void PackerPrograms::add(PackerProgram program) {
    remove(program.name);
    programs_.push_back(std::move(program));
}

void PackerPrograms::remove(std::string_view name) {
    std::erase_if(programs_, [&](const auto& p) { return p.name == name; });
}

const PackerProgram* PackerPrograms::find(std::string_view name) const {
    for (const auto& p : programs_)
        if (p.name == name) return &p;
    return nullptr;
}

Result<std::vector<std::string>> command_words(std::string_view text) {
    std::vector<std::string> out;
    bool open = false;
    char quote = 0;
    for (const char c : text) {
        if (quote) {
            if (c == quote) quote = 0;
            else out.back() += c;
        } else if (c == '"' || c == '\'') {
            quote = c;
            if (!open) out.emplace_back();
            open = true;
        } else if (c == ' ' || c == '\t' || c == '\n') {
            open = false;
        } else {
            if (!open) out.emplace_back();
            open = true;
            out.back() += c;
        }
    }
    if (quote) return fail(ErrorCode::usage, phrase("the command has a {} without its end", quote));
    if (out.empty() || out.front().empty()) return fail(ErrorCode::usage, "the command names no program");
    return out;
}

std::string command_text(const std::vector<std::string>& words) {
    std::string out;
    for (const auto& word : words) {
        if (!out.empty()) out += ' ';
        if (!word.empty() && word.find_first_of(" \t\n'\"") == std::string::npos) {
            out += word;
            continue;
        }
        // Stretches without double quotes in double quotes, double quotes in single ones.
        for (std::size_t at = 0; at < word.size() || at == 0;) {
            const bool marks = at < word.size() && word[at] == '"';
            const auto end = std::min(marks ? word.find_first_not_of('"', at) : word.find('"', at), word.size());
            const char quote = marks ? '\'' : '"';
            out += quote + word.substr(at, end - at) + quote;
            if (word.empty()) break;
            at = end;
        }
    }
    return out;
}

Result<Bytes> run_unpacker(const PackerProgram& program, ByteSpan packed, std::optional<std::uint64_t> size, const ProgramLimits& limits) {
    if (size && *size > limits.output) return fail(ErrorCode::limit, phrase("would unpack to {}, more than the limit", human_bytes(*size)));
    SKIVET_TRY(auto out, run(program, program.unpack, packed, size.value_or(limits.output), limits, size));
    if (size && out.size() != *size)
        return fail(ErrorCode::damaged,
                    phrase("packer {}: unpacks to {} bytes, should be {}", program.name, grouped(out.size()), grouped(*size)));
    return out;
}

Result<Bytes> run_packer(const PackerProgram& program, ByteSpan content, const ProgramLimits& limits) {
    if (program.pack.empty())
        return fail(ErrorCode::missing, phrase("packer {}: has no command for packing, so its entries can only be read", program.name),
                    "Name one in the project's settings");
    // What is packed may be a little larger than what went in.
    return run(program, program.pack, content, std::min(limits.output, 2 * std::uint64_t{content.size()} + 65536), limits, content.size());
}

}  // namespace skivet
