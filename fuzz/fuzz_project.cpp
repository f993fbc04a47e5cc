// Any text as a project's file: what can be read must be written and read back the same.
#include <unistd.h>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "workflow/project.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto folder = [] {
        auto path = std::filesystem::path(std::filesystem::exists("/dev/shm") ? "/dev/shm" : "/tmp") /
                    ("skivet-fuzz-" + std::to_string(::getpid()));
        std::filesystem::create_directories(path);
        static const auto place = path;
        std::atexit([] {
            std::error_code code;
            std::filesystem::remove_all(place, code);
        });
        return path;
    }();
    std::ofstream(folder / "project.json", std::ios::binary).write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
    const auto project = open_project(folder);
    if (!project) return 0;
    if (!save_project(*project)) return 0;  // text that is no UTF-8 cannot be written
    const auto again = open_project(folder);
    if (!again || again->pieces.size() != project->pieces.size() || again->sources != project->sources) std::abort();
    return 0;
}
