#include "workflow/open_with.h"

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

using Values = std::vector<std::pair<std::string_view, std::optional<std::string>>>;

/// Nothing: it names something that is not there. Error: it names something that nobody knows.
Result<std::optional<std::string>> filled(std::string_view word, const Values& values, bool& used_file) {
    std::string out;
    while (!word.empty()) {
        const auto brace = word.find('{');
        out += word.substr(0, brace);
        if (brace == std::string_view::npos) break;
        word.remove_prefix(brace + 1);
        if (word.starts_with('{')) {
            out += '{';
            word.remove_prefix(1);
            continue;
        }
        const auto end = word.find('}');
        const auto name = word.substr(0, end);
        const auto known = std::find_if(values.begin(), values.end(), [&](const auto& v) { return v.first == name; });
        if (end == std::string_view::npos || known == values.end())
            return fail(ErrorCode::usage, phrase("{{{} is no placeholder", name),
                        "There are {file}, {folder}, {alpha} and {name}; {{ is a brace");
        if (!known->second) return std::optional<std::string>();
        used_file = used_file || name == "file";
        out += *known->second;
        word.remove_prefix(end + 1);
    }
    return std::optional(std::move(out));
}

}  // namespace

std::vector<std::string> endings_of_pieces() { return {"png", "tiff", "tga", "exr", "dds", "ktx2"}; }

std::vector<std::string> command_for(const Project& project, const Piece& piece) {
    auto ending = lower(piece.file.extension().string());
    if (!ending.empty()) ending.erase(0, 1);
    if (ending == "tif") ending = "tiff";
    const auto own = project.editors.find(ending);
    const auto& command = own != project.editors.end() && !own->second.empty() ? own->second : project.editor;
    if (command.empty()) return {};
    const auto file = project.work() / piece.file;
    std::optional<std::string> alpha;
    for (const auto& one : piece.more)
        if (one.part == "alpha") alpha = (project.work() / one.file).string();
    const Values values = {
        {"file", file.string()}, {"folder", file.parent_path().string()}, {"alpha", std::move(alpha)}, {"name", piece.name()}};
    std::vector<std::string> out{command.front()};
    bool used_file = false;
    for (std::size_t i = 1; i < command.size(); ++i) {
        auto word = filled(command[i], values, used_file);
        if (!word) out.push_back(command[i]);  // an older project may have braces that mean nothing
        else if (*word) out.push_back(std::move(**word));
    }
    if (!used_file) out.push_back(file.string());
    return out;
}

Status check_command(const std::vector<std::string>& command) {
    const Values values = {{"file", ""}, {"folder", ""}, {"alpha", ""}, {"name", ""}};
    bool used = false;
    for (std::size_t i = 1; i < command.size(); ++i) SKIVET_CHECK(filled(command[i], values, used));
    return {};
}

}  // namespace skivet
