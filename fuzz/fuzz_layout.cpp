// The first byte chooses one of the sheets of tests/layouts, which together use every word of container and wrapper sheets; the rest is the
// archive. What a plan gives must open again with the same entries, the replaced one with its new content.
#include <cstdlib>

#include "base/file_write.h"
#include "container/sheet_container.h"

using namespace skivet;

namespace {

struct Setup {
    ReadContext context;
    std::vector<std::string> names = {"bins",   "ledger", "trunk",  "rows",   "grove",  "cipher", "index", "chunky", "flags",
                                      "twin",   "parade", "box",    "safe",   "train",  "queue",  "seams", "lumps",  "sealed",
                                      "ladder", "reel",   "bricks", "folded", "tucked", "shelf",  "guise", "wall"};
    std::vector<std::shared_ptr<const Sheet>> sheets;

    Setup() {
        for (const auto& name : names) {
            auto sheet = *parse_sheet(as_text(*read_file(std::string(SKIVET_LAYOUTS) + "/" + name + ".toml")), name);
            sheet.recognize.resize(1);
            sheets.push_back(std::make_shared<const Sheet>(std::move(sheet)));
        }
        auto ring = std::make_shared<KeyRing>();
        ring->add({"booth", Bytes(16, std::byte{1})});
        ring->add({"vault", Bytes(32, std::byte{2})});
        ring->add({"safe", Bytes(24, std::byte{3})});
        ring->add({"tin", Bytes(8, std::byte{4})});
        context.keys = ring;
        context.limits.inflated_bytes = 8 << 20;
        context.limits.entries = 5000;
    }
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Setup setup;
    if (size < 1) return 0;
    const auto& sheet = setup.sheets[data[0] % setup.sheets.size()];
    const auto raw = std::as_bytes(std::span(data + 1, size - 1));
    const Bytes bytes(raw.begin(), raw.end());
    const auto kind = sheet->kind == SheetKind::wrapper ? sheet_wrapper_kind(sheet) : sheet_kind(sheet);
    const auto opened = kind->open(setup.context, FileView::of(bytes, "x"));
    if (!opened) return 0;
    const auto& archive = **opened;
    (void)archive.segments();
    (void)archive.plan_compact(setup.context.limits);
    for (std::size_t i = 0; i < std::min<std::size_t>(4, archive.entries().size()); ++i) {
        (void)archive.read_head(i, 100);
        (void)archive.read(i, setup.context.limits);
        const Bytes fresh(70, std::byte{7});
        const auto plan = archive.plan(std::vector<Replacement>{{i, fresh}}, setup.context.limits);
        if (plan && plan->files.size() == 1 && !planned_bytes(plan->files[0], bytes)) std::abort();
    }
    // Entries come, go and get other names; what the plan makes is an archive again, with what was wanted.
    const auto count = archive.entries().size();
    const Bytes fresh(90, std::byte{9});
    for (unsigned what = 0; what < 4 && count > 0; ++what) {
        Changes changes;
        if (what != 1) changes.added.push_back({"n/new.dds", fresh, count - 1});
        if (what == 1 || what == 3) changes.removed.push_back(0);
        if (what >= 2 && count > 2) changes.renamed.push_back({1, "n/other"});
        const auto plan = archive.plan_changes(changes, setup.context.limits);
        if (!plan || plan->files.size() != 1) continue;
        auto after = planned_bytes(plan->files[0], bytes);
        if (!after) std::abort();
        const auto again = kind->open(setup.context, FileView::of(std::move(*after), "x"));
        if (!again || (*again)->entries().size() != count + changes.added.size() - changes.removed.size()) std::abort();
        if (changes.added.empty()) continue;
        const auto entry = (*again)->find("n/new.dds");
        if (!entry) std::abort();
        if (sheet->textures) continue;  // what goes in as bytes may be shown as a texture
        const auto content = (*again)->read(*entry, setup.context.limits);
        if (!content || *content != fresh) std::abort();
    }
    return 0;
}
