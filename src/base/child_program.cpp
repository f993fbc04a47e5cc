#include "base/child_program.h"

#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>
#include <algorithm>
#include <cerrno>
#include <csignal>
#include <thread>
#include <utility>

#include "base/phrase.h"

extern char** environ;

namespace skivet {
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

/// Waits for a process that was killed or is about to end.
int reap(pid_t pid) {
    int status = 0;
    while (::waitpid(pid, &status, 0) < 0 && errno == EINTR) {
    }
    return status;
}

std::string first_line(const std::string& said) {
    std::string out;
    for (const char c : said.substr(0, said.find('\n'))) out += c >= ' ' && c < 0x7F ? c : '?';
    return out.substr(0, 200);
}

/// A program that stops reading before the end ends the pipe; that is no signal for us.
class NoPipeSignal {
public:
    NoPipeSignal() {
        sigemptyset(&pipe_);
        sigaddset(&pipe_, SIGPIPE);
        pthread_sigmask(SIG_BLOCK, &pipe_, &before_);
    }
    NoPipeSignal(const NoPipeSignal&) = delete;
    NoPipeSignal& operator=(const NoPipeSignal&) = delete;
    ~NoPipeSignal() {
        const timespec now{0, 0};
        while (sigtimedwait(&pipe_, nullptr, &now) > 0) {
        }
        pthread_sigmask(SIG_SETMASK, &before_, nullptr);
    }

private:
    sigset_t pipe_, before_;
};

}  // namespace

Result<ChildEnd> run_child(const std::vector<std::string>& words, std::span<const ByteSpan> input, const ChildLimits& limits,
                           const CancelToken& cancel) {
    using Clock = std::chrono::steady_clock;
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
    if (failed != 0) return fail_errno(failed, phrase("cannot start {}", words[0]));
    in.read.close();
    out.write.close();
    err.write.close();
    for (const int fd : {in.write.get(), out.read.get(), err.read.get()}) ::fcntl(fd, F_SETFL, O_NONBLOCK);

    ChildEnd result;
    const auto stop = [&] {
        ::kill(-pid, SIGKILL);
        reap(pid);
    };
    const auto end = Clock::now() + limits.time;
    const NoPipeSignal quiet;
    std::size_t span = 0, written = 0;
    Bytes buffer(1 << 16);
    std::string said;
    const auto is_over = [](ssize_t n) { return n == 0 || (n < 0 && errno != EAGAIN && errno != EINTR); };
    while (out.read.get() >= 0 || err.read.get() >= 0) {
        while (span < input.size() && written == input[span].size()) ++span, written = 0;
        if (span == input.size()) in.write.close();
        pollfd fds[] = {{in.write.get(), POLLOUT, 0}, {out.read.get(), POLLIN, 0}, {err.read.get(), POLLIN, 0}};
        if (auto status = cancel.check(); !status) {
            stop();
            return fail(std::move(status).error());
        }
        const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(end - Clock::now()).count();
        if (left <= 0) {
            stop();
            result.stopped = ChildEnd::Stopped::time;
            return result;
        }
        if (::poll(fds, 3, static_cast<int>(std::min<long long>(left, 50))) < 0 && errno != EINTR) {
            const int error = errno;
            stop();
            return fail_errno(error, "cannot wait for a program");
        }
        if (fds[0].revents) {
            const auto n =
                ::write(in.write.get(), input[span].data() + written, std::min<std::size_t>(input[span].size() - written, 1 << 16));
            if (n > 0) written += static_cast<std::size_t>(n);
            else if (is_over(n)) span = input.size();
        }
        if (fds[1].revents) {
            const auto n = ::read(out.read.get(), buffer.data(), buffer.size());
            if (is_over(n)) out.read.close();
            if (n > 0) result.output.insert(result.output.end(), buffer.begin(), buffer.begin() + n);
            if (result.output.size() > limits.output) {
                stop();
                result.stopped = ChildEnd::Stopped::output;
                return result;
            }
        }
        if (fds[2].revents) {
            const auto n = ::read(err.read.get(), buffer.data(), buffer.size());
            if (is_over(n)) err.read.close();
            if (n > 0 && said.size() < 4096) said.append(reinterpret_cast<const char*>(buffer.data()), static_cast<std::size_t>(n));
        }
    }
    // It may have closed what it writes to and go on.
    int status = 0;
    while (::waitpid(pid, &status, WNOHANG) == 0) {
        if (Clock::now() >= end || cancel.canceled()) {
            stop();
            SKIVET_CHECK(cancel.check());
            result.stopped = ChildEnd::Stopped::time;
            return result;
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(1));
    }
    result.said = first_line(said);
    result.by_itself = WIFEXITED(status);
    result.code = WIFEXITED(status) ? WEXITSTATUS(status) : WTERMSIG(status);
    return result;
}

}  // namespace skivet
