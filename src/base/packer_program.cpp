#include "base/packer_program.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <poll.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>
#include <algorithm>
#include <cerrno>
#include <csignal>
#include <system_error>
#include <thread>

#include "base/phrase.h"

extern char** environ;

namespace skivet {

namespace fs = std::filesystem;

namespace {

class Descriptor {
public:
    explicit Descriptor(int fd = -1) : fd_(fd) {}
    Descriptor(Descriptor&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
    Descriptor& operator=(Descriptor&& other) noexcept {
        std::swap(fd_, other.fd_);
        return *this;
    }
    ~Descriptor() { close(); }
    void close() {
        if (fd_ >= 0) ::close(fd_);
        fd_ = -1;
    }
    [[nodiscard]] int get() const { return fd_; }

private:
    int fd_;
};

struct Pipe {
    Descriptor read, write;
};
Result<Pipe> make_pipe() {
    int ends[2];
    if (::pipe2(ends, O_CLOEXEC) != 0) return fail_errno(errno, "cannot make a pipe");
    return Pipe{Descriptor(ends[0]), Descriptor(ends[1])};
}

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

/// Waits for a process that was killed or is about to end.
int reap(pid_t pid) {
    int status = 0;
    while (::waitpid(pid, &status, 0) < 0 && errno == EINTR) {
    }
    return status;
}

constexpr const char* hangs = "The program hangs, or the data is not what it takes";
std::string too_long(const ProgramLimits& limits) {
    return phrase("did not end within {} s", static_cast<double>(limits.time.count()) / 1000);
}

/// A line of what a program said, as far as it can be shown.
std::string first_line(const std::string& said) {
    std::string out;
    for (const char c : said.substr(0, said.find('\n'))) out += c >= ' ' && c < 0x7F ? c : '?';
    return out.substr(0, 200);
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
    std::vector<char*> argv;
    for (const auto& word : words) argv.push_back(const_cast<char*>(word.c_str()));
    argv.push_back(nullptr);
    SKIVET_TRY(auto in, make_pipe());
    SKIVET_TRY(auto out, make_pipe());
    SKIVET_TRY(auto err, make_pipe());
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_adddup2(&actions, in.read.get(), 0);
    posix_spawn_file_actions_adddup2(&actions, out.write.get(), 1);
    posix_spawn_file_actions_adddup2(&actions, err.write.get(), 2);
    posix_spawnattr_t attributes;
    posix_spawnattr_init(&attributes);
    // A group of its own, so that all of it can be ended; and signals as a program expects them.
    sigset_t none, all;
    sigemptyset(&none);
    sigfillset(&all);
    posix_spawnattr_setpgroup(&attributes, 0);
    posix_spawnattr_setsigmask(&attributes, &none);
    posix_spawnattr_setsigdefault(&attributes, &all);
    posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETPGROUP | POSIX_SPAWN_SETSIGMASK | POSIX_SPAWN_SETSIGDEF);
    pid_t pid = -1;
    const int failed = ::posix_spawnp(&pid, argv[0], &actions, &attributes, argv.data(), environ);
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    if (failed != 0) return fail_errno(failed, "cannot start a packer program");
    in.read.close();
    out.write.close();
    err.write.close();
    for (const int fd : {in.write.get(), out.read.get(), err.read.get()}) ::fcntl(fd, F_SETFL, O_NONBLOCK);
    const auto end = std::chrono::steady_clock::now() + limits.time;
    const auto stop = [&](ErrorCode code, std::string what, std::string advice) {
        ::kill(-pid, SIGKILL);
        reap(pid);
        return named({code, std::move(what), {}, {}, std::move(advice)});
    };
    Bytes result;
    std::string said;
    std::size_t written = 0;
    Bytes buffer(1 << 16);
    if (input.empty()) in.write.close();
    // A program that stops reading before the end ends the pipe; that is no signal for us.
    sigset_t pipe_signal, before;
    sigemptyset(&pipe_signal);
    sigaddset(&pipe_signal, SIGPIPE);
    pthread_sigmask(SIG_BLOCK, &pipe_signal, &before);
    const auto restore = [&] {
        const timespec now{0, 0};
        while (sigtimedwait(&pipe_signal, nullptr, &now) > 0) {
        }
        pthread_sigmask(SIG_SETMASK, &before, nullptr);
    };
    std::optional<tl::unexpected<Error>> wrong;
    while (!wrong && (out.read.get() >= 0 || err.read.get() >= 0)) {
        pollfd fds[] = {{in.write.get(), POLLOUT, 0}, {out.read.get(), POLLIN, 0}, {err.read.get(), POLLIN, 0}};
        const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(end - std::chrono::steady_clock::now()).count();
        if (left <= 0) {
            wrong = stop(ErrorCode::limit, too_long(limits), hangs);
            break;
        }
        if (::poll(fds, 3, static_cast<int>(std::min<long long>(left, 1000))) < 0 && errno != EINTR) {
            wrong = stop(ErrorCode::io, "cannot wait for it", {});
            break;
        }
        if (fds[0].revents) {
            const auto n = ::write(in.write.get(), input.data() + written, std::min<std::size_t>(input.size() - written, 1 << 16));
            if (n > 0) written += static_cast<std::size_t>(n);
            if ((n < 0 && errno != EAGAIN && errno != EINTR) || written == input.size()) in.write.close();
        }
        if (fds[1].revents) {
            const auto n = ::read(out.read.get(), buffer.data(), buffer.size());
            if (n == 0 || (n < 0 && errno != EAGAIN && errno != EINTR)) out.read.close();
            if (n > 0) result.insert(result.end(), buffer.begin(), buffer.begin() + n);
            if (result.size() > most)
                wrong = stop(ErrorCode::limit, phrase("gives more than {} bytes", grouped(most)),
                             "The data is not what it takes, or its size is another");
        }
        if (fds[2].revents) {
            const auto n = ::read(err.read.get(), buffer.data(), buffer.size());
            if (n == 0 || (n < 0 && errno != EAGAIN && errno != EINTR)) err.read.close();
            if (n > 0 && said.size() < 4096) said.append(reinterpret_cast<const char*>(buffer.data()), static_cast<std::size_t>(n));
        }
    }
    restore();
    if (wrong) return *wrong;
    // It may have closed what it writes to and go on.
    int status = 0;
    while (::waitpid(pid, &status, WNOHANG) == 0) {
        if (std::chrono::steady_clock::now() >= end) return stop(ErrorCode::limit, too_long(limits), hangs);
        std::this_thread::sleep_for(std::chrono::milliseconds(2));
    }
    if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) {
        const auto line = first_line(said);
        return named({ErrorCode::damaged,
                      phrase("the program {}{}{}", WIFEXITED(status) ? phrase("ended with {}", WEXITSTATUS(status)) : "was ended",
                             line.empty() ? "" : ": ", line),
                      {},
                      {},
                      "The data is not what it takes, or its command in the project's settings is wrong"});
    }
    return result;
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
