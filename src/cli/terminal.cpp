#include "cli/terminal.h"

#include <fmt/format.h>
#include <algorithm>
#include <istream>
#include <numeric>
#include <ostream>
#include <system_error>

#include "base/file_write.h"

namespace skivet::cli {
namespace {

constexpr auto before_first = std::chrono::milliseconds(400), between = std::chrono::milliseconds(100);
constexpr int bar_width = 24;

std::string time_left(double seconds) {
    const auto whole = static_cast<std::uint64_t>(seconds + 0.5);
    if (whole >= 3600) return fmt::format("{}:{:02}:{:02} left", whole / 3600, whole / 60 % 60, whole % 60);
    return fmt::format("{}:{:02} left", whole / 60, whole % 60);
}

}  // namespace

std::string progress_line(const std::string& what, std::uint64_t done, std::uint64_t total, double seconds, bool bytes) {
    const auto count = [&](std::uint64_t n) { return bytes ? human_bytes(n) : grouped(n); };
    if (total == 0) return done == 0 ? what + " …" : fmt::format("{}  {}", what, count(done));
    done = std::min(done, total);
    const double part = double(done) / double(total);
    const int filled = static_cast<int>(part * bar_width);
    auto line = fmt::format("{}  [{}{}]  {:.0f} %  {} of {}", what, std::string(std::size_t(filled), '#'),
                            std::string(std::size_t(bar_width - filled), '-'), 100 * part, count(done), count(total));
    // A rate of the first moments says nothing.
    if (seconds >= 1 && done > 0) {
        const double rate = double(done) / seconds;
        line += fmt::format("  {}/s  {}", count(static_cast<std::uint64_t>(std::max(1.0, rate))), time_left(double(total - done) / rate));
    }
    return line;
}

Shown::Shown(const Context& context, const Progress& progress, std::string what, bool bytes)
    : context_(context), progress_(progress), what_(std::move(what)), bytes_(bytes) {
    if (!context.terminal.err || context.quiet) return;
    try {
        thread_ = std::thread([this] { run(); });
    } catch (const std::system_error&) {
        // No thread to be had: the work goes on without being shown.
    }
}

void Shown::run() {
    const auto begin = std::chrono::steady_clock::now();
    bool shown = false;
    std::unique_lock lock(mutex_);
    while (!end_.wait_for(lock, shown ? between : before_first, [this] { return ended_; })) {
        const std::chrono::duration<double> since = std::chrono::steady_clock::now() - begin;
        context_.err << "\r\x1b[K" << progress_line(what_, progress_.done, progress_.total, since.count(), bytes_) << std::flush;
        shown = true;
    }
    if (shown) context_.err << "\r\x1b[K" << std::flush;
}

Shown::~Shown() {
    if (!thread_.joinable()) return;
    {
        const std::lock_guard lock(mutex_);
        ended_ = true;
    }
    end_.notify_one();
    thread_.join();
}

Result<Bytes> read_input(const Context& c, const std::filesystem::path& file) {
    const auto limit = c.context.limits.inflated_bytes;
    if (file != "-") return read_file(file, limit);
    if (!c.terminal.in) return fail(ErrorCode::usage, "there is no standard input");
    Bytes out;
    std::vector<char> part(1 << 16);
    while (c.terminal.in->read(part.data(), std::streamsize(part.size())), c.terminal.in->gcount() > 0) {
        SKIVET_CHECK(c.cancel.check());
        const auto got = as_bytes(std::string_view(part.data(), std::size_t(c.terminal.in->gcount())));
        if (out.size() + got.size() > limit)
            return fail(Error{ErrorCode::limit, fmt::format("more than {} come in", human_bytes(limit)), {"standard input"}, {}, {}});
        out.insert(out.end(), got.begin(), got.end());
    }
    return out;
}

Status write_output(const Context& c, const std::filesystem::path& file, ByteSpan bytes) {
    if (file != "-") return write_file(file, bytes, {.make_folders = false});
    c.out.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
    return {};
}

std::string nearest(std::string_view word, const std::vector<std::string>& names) {
    // Edit distance in which two neighbors that changed places are one mistake (optimal string alignment; formula from memory).
    const auto distance = [&](std::string_view a, std::string_view b) {
        std::vector<std::size_t> before(b.size() + 1), last(b.size() + 1), now(b.size() + 1);
        std::iota(last.begin(), last.end(), std::size_t{0});
        for (std::size_t i = 1; i <= a.size(); ++i) {
            now[0] = i;
            for (std::size_t j = 1; j <= b.size(); ++j) {
                now[j] = std::min({last[j] + 1, now[j - 1] + 1, last[j - 1] + (a[i - 1] != b[j - 1])});
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) now[j] = std::min(now[j], before[j - 2] + 1);
            }
            before.swap(last);
            last.swap(now);
        }
        return last[b.size()];
    };
    std::string best;
    std::size_t least = std::max<std::size_t>(1, word.size() / 3) + 1;
    for (const auto& name : names) {
        const bool begins = word.size() >= 3 && name.starts_with(word);
        const auto away = begins ? 0 : distance(word, name);
        if (away < least) least = away, best = name;
    }
    return best;
}

}  // namespace skivet::cli
