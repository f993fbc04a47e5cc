#include "delivery/in_use.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>
#include <algorithm>
#include <cstdlib>
#include <fstream>

#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

std::vector<Program> programs_with(const fs::path& file) {
    std::vector<Program> out;
    struct stat wanted {};
    if (::stat(file.c_str(), &wanted) != 0) return out;
    const auto has_it = [&](const fs::path& link) {
        struct stat info {};
        return ::stat(link.c_str(), &info) == 0 && info.st_ino == wanted.st_ino && info.st_dev == wanted.st_dev;
    };
    std::error_code code;
    for (const auto& item : fs::directory_iterator("/proc", code)) {
        const int process = std::atoi(item.path().filename().c_str());
        if (process <= 0 || process == ::getpid()) continue;
        bool holds = false;
        // Descriptors, and files that are mapped and closed again.
        for (const char* where : {"fd", "map_files"}) {
            std::error_code unreadable;
            for (fs::directory_iterator link(item.path() / where, unreadable), end; !unreadable && link != end && !holds;
                 link.increment(unreadable))
                holds = has_it(link->path());
        }
        if (!holds) continue;
        Program program{process, {}};
        std::ifstream(item.path() / "comm") >> program.name;
        out.push_back(std::move(program));
    }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.process < b.process; });
    return out;
}

std::string names_of(const std::vector<Program>& programs) {
    if (programs.empty()) return {};
    auto text = fmt::format("{} ({})", programs[0].name, programs[0].process);
    if (programs.size() > 1) text += phrase(" and {} more", programs.size() - 1);
    return text;
}

}  // namespace skivet
