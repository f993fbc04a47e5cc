#include "catalog/export_items.h"

namespace skivet {

ExportItem export_item(const ReadContext& context, std::shared_ptr<const std::vector<Source>> sources, const CatalogItem& item,
                       std::string set) {
    std::string inner;
    for (const auto& step : item.inner) inner += (inner.empty() ? "" : "/") + step;
    auto raw = [&context, sources, item]() -> Result<Bytes> {
        const auto& source = (*sources)[item.source];
        if (!source.container) return read_address(context, address_of(source, item));
        return read_entry(context, *source.container, item.inner);
    };
    std::error_code code;
    auto address = address_of((*sources)[item.source], item);
    address.source = std::filesystem::weakly_canonical(address.source, code);
    return {std::move(inner),
            std::move(set),
            item.desc,
            item.size,
            [&context, sources, item] { return open_texture(context, (*sources)[item.source], item); },
            std::move(raw),
            std::move(address)};
}

std::string set_folder(const Catalog& catalog, const CatalogAnalysis& analysis, std::size_t item) {
    if (item >= analysis.set_of.size() || analysis.set_of[item] == CatalogAnalysis::no_set) return {};
    const auto& inner = catalog.items[item].inner;
    // The set's own name, in the folder of its first member.
    const auto first = analysis.sets[analysis.set_of[item]].front();
    const auto& path = catalog.items[first].path();
    const auto slash = path.rfind('/');
    std::string out;
    for (std::size_t i = 0; i + 1 < inner.size(); ++i) out += inner[i] + "/";
    return out + (slash == std::string::npos ? "" : path.substr(0, slash + 1)) + split_name(path, analysis.habits).base;
}

}  // namespace skivet
