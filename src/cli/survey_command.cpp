#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <ostream>

#include "cli/commands.h"
#include "cli/json_line.h"
#include "workflow/installation.h"

namespace skivet::cli {

namespace {

std::string_view name_of(Found::What what) {
    switch (what) {
        case Found::What::archive: return "archive";
        case Found::What::loose: return "loose";
        case Found::What::undescribed: return "undescribed";
        case Found::What::backup: return "backup";
        case Found::What::installer: return "installer";
        default: return "documents";
    }
}

}  // namespace

int survey(Context& c, const std::string& folder) {
    Progress progress;
    progress.cancel = c.cancel;
    std::error_code code;
    const auto root = std::filesystem::absolute(folder, code).lexically_normal();
    const auto found = find_in_game(c.context, root, progress);
    if (!found) return c.failed(found.error());
    const auto& survey = found->survey;
    std::map<std::size_t, std::size_t> place;
    for (std::size_t i = 0; i < found->order.sources.size(); ++i) place[found->order.sources[i].found] = i;
    const auto print = [&](const Found& one, const OrderedSource* order, std::size_t number) {
        if (c.json) {
            nlohmann::json line = {{"path", one.path.string()},
                                   {"is", std::string(name_of(one.what))},
                                   {"kind", one.kind},
                                   {"group", std::string(skivet::name_of(one.group))},
                                   {"bytes", one.bytes},
                                   {"files", one.files()},
                                   {"textures", one.textures},
                                   {"wanted", one.wanted},
                                   {"why", one.why}};
            if (order) line["place"] = number + 1, line["order"] = order->reason, line["sure"] = order->sure;
            if (one.error) line["error"] = one.error->message();
            c.out << dump(line) << '\n';
            return;
        }
        const auto inside = one.path.lexically_relative(root).string();
        c.out << fmt::format("{:>4} {:<12} {:>9} {:>8} textures  {}  ({})\n", order ? std::to_string(number + 1) : "-", name_of(one.what),
                             human_bytes(one.bytes), grouped(one.textures), inside.empty() || inside == "." ? root.string() : inside,
                             order ? order->reason + (order->sure ? "" : "; not sure") : one.why);
    };
    for (std::size_t i = 0; i < found->order.sources.size(); ++i)
        print(survey.found[found->order.sources[i].found], &found->order.sources[i], i);
    for (std::size_t i = 0; i < survey.found.size(); ++i)
        if (!place.contains(i)) print(survey.found[i], nullptr, 0);
    for (const auto& left : found->leftovers) {
        if (c.json) c.out << dump(nlohmann::json({{"leftover", left.path.string()}, {"why", left.why}})) << '\n';
        else c.out << fmt::format("   - left over               {}  ({})\n", left.path.lexically_relative(root).string(), left.why);
    }
    if (!c.json) {
        c.out << fmt::format("{} in {}", count_of(survey.files, "file"), count_of(survey.folders, "folder"));
        if (survey.hidden + survey.linked + survey.unreadable > 0)
            c.out << fmt::format("; left out: {} hidden, {} linked, {} that cannot be read", grouped(survey.hidden), grouped(survey.linked),
                                 grouped(survey.unreadable));
        c.out << (found->order.list.empty() ? "" : "; in the order of " + found->order.list.string()) << '\n';
    }
    if (!survey.whole) c.err << "skivet-cli: there is more below the folder than is looked at\n";
    // Whoever asks what there is and hears "nothing" should notice.
    return found->order.sources.empty() ? 1 : 0;
}

}  // namespace skivet::cli
