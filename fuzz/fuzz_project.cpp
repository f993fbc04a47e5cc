// Any text as a project's file: what can be read must be written and read back the same.
#include <cstdlib>

#include "scratch.h"
#include "workflow/project.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto& folder = fuzz::scratch_folder();
    fuzz::write(folder / "project.json", std::as_bytes(std::span(data, size)));
    const auto project = open_project(folder);
    if (!project) return 0;
    if (!save_project(*project)) return 0;  // text that is no UTF-8 cannot be written
    const auto again = open_project(folder);
    if (!again || again->pieces.size() != project->pieces.size() || again->sources != project->sources) std::abort();
    return 0;
}
