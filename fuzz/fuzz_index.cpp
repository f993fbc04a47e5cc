// Any bytes as the rows of the catalog's index, and as the index file itself. The first byte chooses which.
#include <cstdlib>

#include "catalog/index_store.h"
#include "catalog/item_records.h"
#include "scratch.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 2) return 0;
    const auto rest = std::as_bytes(std::span(data + 1, size - 1));
    if (data[0] % 2 == 0) {
        const auto items = unpack_items(rest);
        if (!items) return 0;
        const auto again = unpack_items(pack_items(*items));
        if (!again || again->size() != items->size()) std::abort();
        for (std::size_t i = 0; i < items->size(); ++i)
            if ((*again)[i].inner != (*items)[i].inner || !((*again)[i].desc == (*items)[i].desc)) std::abort();
        return 0;
    }
    const auto& folder = fuzz::scratch_folder();
    const auto file = folder / "index.db";
    std::error_code code;
    for (const char* ending : {"-wal", "-shm", "-journal"}) std::filesystem::remove(file.string() + ending, code);
    fuzz::write(file, rest);
    const auto store = IndexStore::open(file, true);
    if (!store) return 0;
    (void)(*store)->listing("/game/rides.crate", "a b");
    auto there = (*store)->contents();
    there.resize(std::min<std::size_t>(there.size(), 8));
    there.push_back({1, 2});
    for (const auto& facts : (*store)->facts(there))
        if (facts) (void)facts->pattern();
    std::vector<CatalogItem> items(1);
    items[0].inner = {"horse.dds"};
    if ((*store)->put_listing("/game/rides.crate", "a b", items)) {
        const auto back = (*store)->listing("/game/rides.crate", "a b");
        if (back && (back->size() != 1 || back->front().inner != items[0].inner)) std::abort();
    }
    return 0;
}
