// Textures without a header that their archive's records describe, in an archive that an independent program writes and reads
// (tests/layouts/shelf.py).
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/address.h"
#include "container/kinds.h"
#include "sheet/sums.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct RecordTextures : testing::Test {
    TempFolder folder;
    ReadContext context;
    std::filesystem::path archive = folder / "game.shelf";
    std::string written;

    void SetUp() override {
        ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "shelf.toml"));
        written = script({"write", archive.string(), "3"});
    }
    static std::string script(const std::vector<std::string>& words) {
        std::vector<std::string> all = words;
        all.emplace(all.begin(), (std::filesystem::path(layouts_folder) / "shelf.py").string());
        all.emplace(all.begin(), "python3");
        const auto ran = run_program(all);
        EXPECT_EQ(ran.code, 0) << ran.output;
        return ran.output;
    }
    std::string by_script() { return script({"read", archive.string()}); }
    /// The same lines as the script's, out of what Skivet shows.
    std::string by_us() {
        std::string out;
        const auto opened = open_source(context, archive);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        for (std::size_t i = 0; i < (*opened)->entries().size(); ++i) {
            const auto& e = (*opened)->entries()[i];
            auto data = *(*opened)->read(i, context.limits);
            EXPECT_EQ(data.size(), e.size) << e.path;
            EXPECT_EQ(*(*opened)->read_head(i, 50),
                      Bytes(data.begin(), data.begin() + static_cast<std::ptrdiff_t>(std::min<std::size_t>(50, data.size()))));
            if (!e.path.ends_with(".dds")) {
                out += e.path + " 0 0 None 0 " + to_hex(sum_digest(SumKind::sha1, data)) + "\n";
                continue;
            }
            const auto t = TextureFile::open(TextureKinds::standard(), data, e.path, context.limits);
            EXPECT_TRUE(t) << (t ? "" : t.error().message());
            const auto levels = *payload_of(*t);
            out += fmt::format("{} {} {} {} {} {}\n", e.path.substr(0, e.path.size() - 4), t->layout.desc.width, t->layout.desc.height,
                               info(t->layout.desc.format).name, t->layout.desc.mips, to_hex(sum_digest(SumKind::sha1, levels)));
        }
        return out;
    }
    Status replace(const std::string& path, Bytes file) {
        SKIVET_TRY(const auto plan, plan_replacement(context, {archive, {path}}, std::move(file)));
        for (const auto& p : plan.files) {
            SKIVET_TRY(const auto bytes, planned_bytes(p, get_file(p.file)));
            put_file(p.file, bytes);
        }
        return {};
    }
    static Bytes dds(Format format, std::uint32_t w, std::uint32_t h, std::uint32_t mips, unsigned seed) {
        TextureDesc d;
        d.format = format, d.width = w, d.height = h, d.mips = mips;
        std::uint64_t size = 0;
        for (std::uint32_t m = 0; m < mips; ++m) size += level_bytes(format, mip_side(w, m), mip_side(h, m));
        return *write_dds(d, random_bytes(static_cast<std::size_t>(size), seed));
    }
};

}  // namespace

TEST_F(RecordTextures, AreShownAsTheFilesTheyAre) {
    EXPECT_EQ(by_us(), written);
    const auto texture = TextureFile::open(context.textures, *read_address(context, {archive, {"tent.dds"}}), "tent.dds", context.limits);
    ASSERT_TRUE(texture);
    EXPECT_EQ(texture->layout.desc.color, ColorSpace::srgb);
}

TEST_F(RecordTextures, GoBackWithTheirLevelsAndNothingElse) {
    const auto before = get_file(archive);
    auto file = *read_address(context, {archive, {"horse.dds"}});
    ASSERT_TRUE(replace("horse.dds", file));
    EXPECT_EQ(get_file(archive), before) << "the same file is no change";
    file[200] ^= std::byte{0x55};
    ASSERT_TRUE(replace("horse.dds", file));
    EXPECT_EQ(*read_address(context, {archive, {"horse.dds"}}), file);
    EXPECT_EQ(by_us(), by_script());
    EXPECT_NE(by_script(), written);
}

TEST_F(RecordTextures, LargerOnesAndOtherFormatsGoIntoTheRecord) {
    ASSERT_TRUE(replace("horse.dds", dds(Format::BC1, 128, 64, 8, 1)));
    ASSERT_TRUE(replace("kit/swing.dds", dds(Format::BC3, 32, 32, 6, 2)));
    EXPECT_EQ(by_us(), by_script());
    EXPECT_NE(by_script().find("horse 128 64 BC1 8 "), std::string::npos) << by_script();
    EXPECT_NE(by_script().find("kit/swing 32 32 BC3 6 "), std::string::npos) << by_script();
    const auto other = replace("flag.dds", dds(Format::BC7, 8, 4, 1, 3));
    ASSERT_FALSE(other);
    EXPECT_EQ(other.error().message(), "game.shelf ▸ flag.dds: is BC7, and the sheet has no number for it here; the original is BC1");
    const auto none = replace("flag.dds", bytes_of("just words"));
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message().find("This entry takes a DDS or KTX2 file"), std::string::npos) << none.error().message();
    const auto layers = replace("flag.dds", [] {
        TextureDesc d;
        d.format = Format::BC1, d.width = 8, d.height = 4, d.layers = 2;
        return *write_dds(d, random_bytes(32, 1));
    }());
    ASSERT_FALSE(layers);
    EXPECT_NE(layers.error().message().find("its layers is another, and no field of the record says it"), std::string::npos)
        << layers.error().message();
}

TEST_F(RecordTextures, ARecordThatAsksForMoreIsAProblemAndItsDataStays) {
    auto bytes = get_file(archive);
    bytes[12 + 24] = std::byte{128};  // the first one's width
    put_file(archive, bytes);
    const auto opened = open_source(context, archive);
    ASSERT_TRUE(opened);
    EXPECT_EQ((*opened)->entries()[0].path, "horse");
    EXPECT_EQ((*opened)->entries()[1].path, "kit/swing.dds");
    ASSERT_EQ((*opened)->problems().size(), 1u);
    EXPECT_NE((*opened)->problems()[0].message().find("mip chain: needs"), std::string::npos) << (*opened)->problems()[0].message();
}
