// Texture layouts, written and read by an independent program (tests/layouts/textures.py) and described by a sheet each; together they
// use what a texture sheet can say: sizes by formula and constants, row pitches, tilings, channel orders, small levels together, levels in
// other files.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "bench/export.h"
#include "container/address.h"
#include "container/texture_files.h"
#include "delivery/vault.h"
#include "sheet/sheet.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Case {
    std::string name, entry;
    std::vector<std::string> others;  ///< files it is spread over besides
};
const std::vector<Case> cases = {{"poster", "wall.pst", {}},
                                 {"mosaic", "sky.msc", {}},
                                 {"slab", "floor.slb", {}},
                                 {"strand", "kit/rope.str", {"kit/rope.m00", "kit/rope.m01"}},
                                 {"stack", "a/tile.stk", {"a/tile.stk.top"}},
                                 {"bare", "masks/cloth.mask", {}},
                                 {"card", "hud/ace.card", {}},
                                 {"scroll", "a.scroll", {}},
                                 {"badge", "a/x.badge", {}},
                                 {"loom", "cloth.loom", {}},
                                 {"plates", "x.plates", {}},
                                 {"weave", "w.weave", {}}};

class TextureLayouts : public testing::TestWithParam<Case> {
protected:
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    std::string name = GetParam().name;
    Address address{folder / (name + ".zip"), {GetParam().entry}};

    void SetUp() override {
        ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / (name + ".toml")));
        script({"write", name, folder.path().string(), "5"});
    }
    void script(std::vector<std::string> words) {
        words.insert(words.begin(), {"python3", std::string(layouts_folder) + "/textures.py"});
        const auto ran = run_program(words);
        ASSERT_EQ(ran.code, 0) << ran.output;
    }
    static Bytes level(const std::filesystem::path& folder, const Surface& s) {
        return get_file(folder / fmt::format("{}_{}_{}", s.layer, s.face, s.mip));
    }
    /// The levels as the other program reads them now.
    std::filesystem::path by_script() {
        std::filesystem::remove_all(folder / "out");
        std::filesystem::create_directories(folder / "out");
        script({"read", name, folder.path().string(), (folder / "out").string()});
        return folder / "out";
    }
    Status deliver(Bytes joined) {
        SKIVET_TRY(const auto plan, plan_replacement(context, address, std::move(joined)));
        if (plan.empty()) return {};
        SKIVET_TRY(const auto done, Vault(folder / "vault", files).deliver(plan, {"t", address.source, {}}, 1));
        (void)done;
        return {};
    }
};
INSTANTIATE_TEST_SUITE_P(All, TextureLayouts, testing::ValuesIn(cases), [](const auto& p) { return p.param.name; });

}  // namespace

TEST_P(TextureLayouts, EveryLevelIsWhatItsWriterPutThere) {
    const auto texture = open_texture_at(context, address);
    ASSERT_TRUE(texture) << texture.error().message();
    EXPECT_FALSE(texture->layout.damage);
    std::size_t files_there = 0;
    for (const auto& item : std::filesystem::directory_iterator(folder / "plain" / name)) files_there += item.is_regular_file();
    EXPECT_EQ(texture->layout.surfaces.size(), files_there);
    for (const auto& s : texture->layout.surfaces) {
        const auto bytes = texture->surface_bytes(s);
        ASSERT_TRUE(bytes) << bytes.error().message();
        EXPECT_EQ(*bytes, level(folder / "plain" / name, s)) << "mip " << s.mip << " face " << s.face << " layer " << s.layer;
    }
    if (name == "poster") EXPECT_EQ(texture->layout.desc.color, ColorSpace::srgb);
}

TEST_P(TextureLayouts, NothingEditedIsNothingWritten) {
    const auto before = get_file(address.source);
    const auto joined = read_texture_bytes(context, address);
    ASSERT_TRUE(joined) << joined.error().message();
    const auto texture = TextureFile::open(context.textures, *joined, address.inner.back(), context.limits);
    ASSERT_TRUE(texture);
    std::vector<SurfaceEdit> edits;
    for (std::size_t i = 0; i < texture->layout.surfaces.size(); ++i)
        edits.push_back({i, *texture->surface_bytes(texture->layout.surfaces[i])});
    const auto again = texture->kind->replace(texture->file, texture->layout, edits);
    ASSERT_TRUE(again) << again.error().message();
    EXPECT_EQ(*again, *joined);
    ASSERT_TRUE(deliver(*again));
    EXPECT_EQ(get_file(address.source), before);
}

TEST_P(TextureLayouts, AChangedLevelIsReadByTheOtherProgramAndUndone) {
    const auto before = get_file(address.source);
    for (const std::uint32_t mip : {0u, 2u}) {
        const auto texture = open_texture_at(context, address);
        ASSERT_TRUE(texture);
        if (mip >= texture->layout.desc.mips) continue;
        const auto last = texture->layout.desc.layers - 1, face = texture->layout.desc.faces - 1;
        const auto* s = texture->layout.find(mip, last, face);
        ASSERT_TRUE(s);
        auto bytes = *texture->surface_bytes(*s);
        // A texel or block becomes another that is there, so that palettes have its color.
        const std::size_t unit = info(texture->layout.desc.format).block_bytes;
        const auto at = static_cast<std::ptrdiff_t>(bytes.size() / unit / 2 * unit);
        auto from = std::ptrdiff_t{0};
        while (std::equal(bytes.begin() + from, bytes.begin() + from + static_cast<std::ptrdiff_t>(unit), bytes.begin() + at))
            from += static_cast<std::ptrdiff_t>(unit);
        std::copy_n(bytes.begin() + from, unit, bytes.begin() + at);
        const auto file =
            texture->kind->replace(texture->file, texture->layout,
                                   std::vector<SurfaceEdit>{{static_cast<std::size_t>(s - texture->layout.surfaces.data()), bytes}});
        ASSERT_TRUE(file) << file.error().message();
        const auto done = deliver(*file);
        ASSERT_TRUE(done) << done.error().message();
        const auto out = by_script();
        for (const auto& t : texture->layout.surfaces)
            EXPECT_EQ(level(out, t), &t == s ? bytes : *texture->surface_bytes(t)) << "mip " << t.mip;
    }
    ASSERT_TRUE(Vault(folder / "vault", files).restore_all());
    EXPECT_EQ(get_file(address.source), before);
}

TEST_P(TextureLayouts, AMissingFileIsNamedAndTheRestOpens) {
    if (GetParam().others.empty()) return;
    const auto zip = open_source(context, address.source);
    ASSERT_TRUE(zip);
    for (std::size_t i = 0; i < (*zip)->entries().size(); ++i)
        if ((*zip)->entries()[i].path != GetParam().others.front())
            put_file(folder / "loose" / (*zip)->entries()[i].path, *(*zip)->read(i, context.limits));
    const Address loose{folder / "loose", {GetParam().entry}};
    const auto texture = open_texture_at(context, loose);
    ASSERT_TRUE(texture) << texture.error().message();
    ASSERT_TRUE(texture->layout.damage);
    const auto missing = std::filesystem::path(GetParam().others.front()).filename().string();
    EXPECT_NE(texture->layout.damage->message().find(missing), std::string::npos) << texture->layout.damage->message();
    const auto there = first_level_there(texture->layout);
    EXPECT_EQ(there, name == "strand" ? 1u : 2u);
    EXPECT_TRUE(texture->decode(there));
    const auto gone = texture->decode(0);
    ASSERT_FALSE(gone);
    EXPECT_EQ(gone.error().code, ErrorCode::missing);
    const auto joined = read_texture_bytes(context, loose);  // nothing is written to a texture that is not whole
    ASSERT_FALSE(joined);
    EXPECT_EQ(joined.error().code, ErrorCode::missing);
}

TEST_P(TextureLayouts, WhatWasJoinedNeverGoesInAsOneFileWhenASiblingIsGone) {
    if (name != "strand") return;  // its siblings are packed, so they are needed for the way back
    const auto joined = read_texture_bytes(context, address);
    ASSERT_TRUE(joined);
    const auto zip = open_source(context, address.source);
    ASSERT_TRUE(zip);
    const auto own = *(*zip)->read(*(*zip)->find(GetParam().entry), context.limits);
    put_file(folder / "loose" / GetParam().entry, own);
    for (const Address& place : {Address{folder / "loose", {GetParam().entry}}, Address{folder / "loose" / GetParam().entry, {}}}) {
        const auto plan = plan_replacement(context, place, *joined);
        ASSERT_FALSE(plan) << place.text();
        EXPECT_EQ(plan.error().code, ErrorCode::missing) << plan.error().message();
        EXPECT_NE(plan.error().message().find("rope.m00"), std::string::npos) << plan.error().message();
        // The texture's own file alone is what somebody may want to put in.
        auto other = own;
        other.back() ^= std::byte{1};
        EXPECT_TRUE(plan_replacement(context, place, other));
    }
}

TEST_P(TextureLayouts, LooseFilesOnADiskAreOneTextureToo) {
    const auto zip = open_source(context, address.source);
    ASSERT_TRUE(zip);
    for (std::size_t i = 0; i < (*zip)->entries().size(); ++i)
        put_file(folder / "loose" / (*zip)->entries()[i].path, *(*zip)->read(i, context.limits));
    const Address bare{folder / "loose" / GetParam().entry, {}};
    auto joined = read_texture_bytes(context, bare);
    ASSERT_TRUE(joined) << joined.error().message();
    const auto texture = TextureFile::open(context.textures, *joined, bare.source.string(), context.limits);
    ASSERT_TRUE(texture);
    auto bytes = *texture->surface_bytes(*texture->layout.find(0));
    bytes[0] ^= std::byte{1};
    std::size_t top = 0;
    while (texture->layout.surfaces[top].mip != 0 || texture->layout.surfaces[top].layer != 0 || texture->layout.surfaces[top].face != 0)
        ++top;
    const auto file = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{top, bytes}});
    ASSERT_TRUE(file);
    const auto plan = plan_replacement(context, bare, *file);
    ASSERT_TRUE(plan) << plan.error().message();
    ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"t", bare.source, {}}, 1));
    EXPECT_EQ(*read_texture_bytes(context, bare), *file);
}

TEST_P(TextureLayouts, ColorsAPaletteDoesNotHaveBecomeTheNearestAndThePaletteStays) {
    if (name != "card" && name != "scroll" && name != "badge") return;
    const auto texture = open_texture_at(context, address);
    ASSERT_TRUE(texture);
    const auto& s = texture->layout.surfaces[0];
    const auto before = *texture->surface_bytes(s);
    auto wanted = before;
    wanted[0] ^= std::byte{1};  // of one texel, by so little that its own entry is the nearest
    const auto file = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{0, wanted}});
    ASSERT_TRUE(file) << file.error().message();
    EXPECT_EQ(*file, texture->file);
    // Another picture altogether: every texel is one of the palette's colors, and as near as there is one.
    std::fill(wanted.begin(), wanted.end(), std::byte{0x80});
    const auto gray = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{0, wanted}});
    ASSERT_TRUE(gray);
    const auto again = TextureFile::open(context.textures, *gray, address.inner.back(), context.limits);
    ASSERT_TRUE(again);
    const auto now = *again->surface_bytes(s);
    const std::size_t unit = info(texture->layout.desc.format).block_bytes;
    for (std::size_t i = unit; i < now.size(); i += unit)
        ASSERT_TRUE(std::equal(now.begin(), now.begin() + static_cast<std::ptrdiff_t>(unit), now.begin() + static_cast<std::ptrdiff_t>(i)));
}

TEST_P(TextureLayouts, PalettesGoOutInPngAndComeBack) {
    if (name != "card" && name != "scroll" && name != "badge") return;
    const auto texture = open_texture_at(context, address);
    ASSERT_TRUE(texture);
    const auto png = export_as(*texture, ExportAs::png);
    ASSERT_TRUE(png) << png.error().message();
    put_file(folder / "out.png", *png);
    // As another reader of the format sees it: a palette, and the same texels.
    const auto kind = run_program({"identify", "-format", "%[png:IHDR.color_type]", (folder / "out.png").string()});
    EXPECT_NE(kind.output.find("3 (Indexed)"), std::string::npos) << kind.output;
    ASSERT_EQ(run_program({"convert", (folder / "out.png").string(), "-depth", "8", "rgba:" + (folder / "out.rgba").string()}).code, 0);
    const auto shown = *texture->decode(0);
    const auto rgba = get_file(folder / "out.rgba");
    ASSERT_EQ(rgba.size(), shown.texels.size() * 4);
    // What is wholly transparent may lose its color there.
    for (std::size_t i = 0; i < shown.texels.size(); ++i)
        if (shown.texels[i][3] > 0) ASSERT_EQ(std::memcmp(rgba.data() + i * 4, shown.texels[i].data(), 4), 0) << i;
    const auto back = TextureFile::open(TextureKinds::standard(), *png, "out.png", context.limits);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->decode(0)->texels, shown.texels);
    const auto indexed = *texture->kind->indexed(texture->file, texture->layout, texture->layout.surfaces[0]);
    ASSERT_TRUE(indexed);
    const auto plte = as_text(*png).find("PLTE");
    ASSERT_NE(plte, std::string::npos);
    for (std::size_t i = 0; i < indexed->palette.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) ASSERT_EQ(static_cast<std::uint8_t>((*png)[plte + 4 + 3 * i + c]), indexed->palette[i][c]) << i;
}

TEST(TextureSheets, AHeaderMayLieApartFromAllItsLevels) {
    TempFolder folder;
    ReadContext context;
    put_file(
        folder / "s.toml",
        bytes_of(
            "sheet = \"texture\"\nname = \"Head\"\n[[recognize]]\ntext = \"HEAD\"\n[header]\nfields = [ { name = \"m\", type = \"text\", "
            "size = 4 }, { name = \"w\", type = \"u8\", means = \"width\" }, { name = \"h\", type = \"u8\", means = \"height\" } ]\n"
            "[texture]\nformat = \"RGBA8\"\nmips = \"all\"\n[[sibling]]\nfile = \"{stem}.texels\"\nlevels = 16\nmethod = \"lz4\"\n"));
    const auto added = add_sheet(context, folder / "s.toml");
    ASSERT_TRUE(added) << added.error().message();
    const auto texels = random_bytes(4 * (8 * 4 + 4 * 2 + 2 + 1), 5);
    const auto head = bytes_of(std::string_view("HEAD\x08\x04", 6));
    put_file(folder / "a.zip", make_zip({{"kit/a.head", head}, {"kit/a.texels", *pack(Packing::lz4_frame, texels)}}));
    const Address address{folder / "a.zip", {"kit/a.head"}};
    auto joined = read_texture_bytes(context, address);
    ASSERT_TRUE(joined) << joined.error().message();
    const auto texture = TextureFile::open(context.textures, *joined, "kit/a.head", context.limits);
    ASSERT_TRUE(texture) << texture.error().message();
    ASSERT_EQ(texture->layout.desc.mips, 4u);
    auto level = *texture->surface_bytes(texture->layout.surfaces[1]);
    EXPECT_EQ(level, Bytes(texels.begin() + 128, texels.begin() + 160));
    level[3] ^= std::byte{7};
    const auto file = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{1, level}});
    ASSERT_TRUE(file);
    const auto plan = plan_replacement(context, address, *file);
    ASSERT_TRUE(plan) << plan.error().message();
    put_file(folder / "a.zip", *planned_bytes(plan->files.at(0), get_file(folder / "a.zip")));
    EXPECT_EQ(*read_address(context, address), head) << "the header's own file is what it was";
    const auto now =
        *unpack(Packing::lz4_frame, *read_address(context, {folder / "a.zip", {"kit/a.texels"}}), texels.size(), context.limits);
    auto wanted = texels;
    wanted[131] ^= std::byte{7};
    EXPECT_EQ(now, wanted);
}

TEST(TextureSheets, FilesWithoutAHeaderAreToldApartByTheirSize) {
    TempFolder folder;
    ReadContext context;
    for (const auto& [name, side] : {std::pair{"Small", 8}, std::pair{"Large", 16}}) {
        put_file(folder / (std::string(name) + ".toml"),
                 bytes_of(fmt::format("sheet = \"texture\"\nname = \"{}\"\n[[recognize]]\nname = \"*.raw\"\n[[recognize]]\nsize = "
                                      "{}\n[texture]\nwidth = {}\nheight = {}\n"
                                      "format = \"RGBA8\"\n",
                                      name, side * side * 4, side, side)));
        const auto added = add_sheet(context, folder / (std::string(name) + ".toml"));
        ASSERT_TRUE(added) << added.error().message();
    }
    for (const std::uint32_t side : {8u, 16u}) {
        put_file(folder / "a.raw", random_bytes(side * side * 4, side));
        const auto texture = open_texture_at(context, {folder / "a.raw", {}});
        ASSERT_TRUE(texture) << texture.error().message();
        EXPECT_EQ(texture->layout.desc.width, side);
    }
    put_file(folder / "a.raw", random_bytes(100, 1));
    EXPECT_FALSE(open_texture_at(context, {folder / "a.raw", {}})) << "neither";
}

TEST(PaletteSheets, APackedPayloadWithItsPaletteInAnotherFile) {
    TempFolder folder;
    ReadContext context;
    const std::string sheet =
        "sheet = \"texture\"\nname = \"P\"\n[[recognize]]\ntext = \"PP\"\n[header]\nfields = [ { name = \"m\", type = \"text\", size = 2 "
        "}, "
        "{ name = \"n\", type = \"u32\", means = \"payload size\" } ]\n[texture]\nwidth = 40\nheight = 30\n[payload]\nmethod = "
        "\"zlib\"\n[palette]\n"
        "format = \"RGB8\"\nfile = \"{stem}.pal\"\n";
    auto without = sheet;
    without.replace(without.find(", means = \"payload size\""), 24, "");
    put_file(folder / "w.toml", bytes_of(without));
    EXPECT_EQ(add_sheet(context, folder / "w.toml").error().code, ErrorCode::unsupported) << "nothing would say where it ends";
    put_file(folder / "p.toml", bytes_of(sheet));
    const auto added = add_sheet(context, folder / "p.toml");
    ASSERT_TRUE(added) << added.error().message();
    Bytes numbers(1200);
    for (std::size_t i = 0; i < numbers.size(); ++i) numbers[i] = static_cast<std::byte>(i % 7);
    const auto packed = *pack(Packing::zlib, numbers);
    ByteWriter own;
    own.put("PP");
    own.le(static_cast<std::uint32_t>(packed.size()));
    own.put(packed);
    own.put("behind it");
    const auto colors = random_bytes(768, 3);
    const auto before = make_zip({{"a.pp", own.bytes}, {"a.pal", colors}});
    put_file(folder / "a.zip", before);
    const Address address{folder / "a.zip", {"a.pp"}};
    const auto joined = read_texture_bytes(context, address);
    ASSERT_TRUE(joined) << joined.error().message();
    const auto texture = TextureFile::open(context.textures, *joined, "a.pp", context.limits);
    ASSERT_TRUE(texture) << texture.error().message();
    auto level = *texture->surface_bytes(texture->layout.surfaces[0]);
    ASSERT_EQ(Bytes(level.begin(), level.begin() + 21), Bytes(colors.begin(), colors.begin() + 21));
    std::copy_n(colors.begin() + 300, 3, level.begin() + 600);  // texel 200 in the color of entry 100
    const auto file = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{0, level}});
    ASSERT_TRUE(file) << file.error().message();
    const auto plan = plan_replacement(context, address, *file);
    ASSERT_TRUE(plan) << plan.error().message();
    put_file(folder / "a.zip", *planned_bytes(plan->files.at(0), before));
    EXPECT_EQ(*read_address(context, {folder / "a.zip", {"a.pal"}}), colors);
    const auto now = *read_address(context, address);
    const auto size = load_le<std::uint32_t>(now.data() + 2);
    EXPECT_EQ(as_text(ByteSpan(now).subspan(6 + size)), "behind it");
    numbers[200] = std::byte{100};
    EXPECT_EQ(*unpack(Packing::zlib, ByteSpan(now).subspan(6, size), 1200, context.limits), numbers);
}

TEST(PaletteSheets, AMissingPaletteIsNamed) {
    TempFolder folder;
    ReadContext context;
    ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "badge.toml"));
    put_file(folder / "x.badge", bytes_of(std::string_view("BDG\4\2\x1B\x1B\x1B", 8)));
    const auto texture = open_texture_at(context, {folder / "x.badge", {}});
    ASSERT_TRUE(texture) << texture.error().message();
    ASSERT_TRUE(texture->layout.damage);
    EXPECT_EQ(texture->layout.damage->message(), "shared.colors is missing: the palette is in it. Put it beside the texture's other files");
    EXPECT_TRUE(texture->decode(0)) << "in black";
    const auto joined = read_texture_bytes(context, {folder / "x.badge", {}});
    ASSERT_FALSE(joined);
    EXPECT_EQ(joined.error().code, ErrorCode::missing);
}

TEST(PaletteSheets, ExactOnesRefuseOtherColorsAndDitheredOnesMixThem) {
    const std::string head =
        "sheet = \"texture\"\nname = \"P\"\n[[recognize]]\ntext = \"P\"\n[header]\nfields = [ { name = \"m\", type = "
        "\"text\", size = 1 } ]\n[texture]\nwidth = 16\nheight = 16\n[palette]\nbits = 1\nformat = \"RGB8\"\n";
    auto file = bytes_of(std::string_view("P\0\0\0\xFF\xFF\xFF", 7));  // black and white
    file.resize(7 + 32);
    const auto replaced = [&](const std::string& words, std::uint8_t gray) -> Result<Bytes> {
        ReadContext context;
        TempFolder folder;
        put_file(folder / "p.toml", bytes_of(head + words));
        SKIVET_CHECK(add_sheet(context, folder / "p.toml"));
        SKIVET_TRY(const auto texture, TextureFile::open(context.textures, file, "a.p", context.limits));
        return texture.kind->replace(texture.file, texture.layout,
                                     std::vector<SurfaceEdit>{{0, Bytes(16 * 16 * 3, static_cast<std::byte>(gray))}});
    };
    EXPECT_EQ(replaced("edits = \"exact\"", 100).error().message(),
              "mip 0: 256 texels have colors the palette does not have. Paint with the palette's colors only, or let the sheet say edits = "
              "\"nearest\"");
    EXPECT_TRUE(replaced("edits = \"exact\"", 255));
    EXPECT_EQ(*replaced("", 100), file) << "all black";
    const auto mixed = *replaced("edits = \"dithered\"", 64);
    int white = 0;
    for (std::size_t i = 7; i < mixed.size(); ++i) white += std::popcount(static_cast<unsigned>(mixed[i]));
    EXPECT_NEAR(white, 64, 12) << "a quarter of 256";
}

TEST(TextureSheets, SayWhatIsWrongWithTheirWords) {
    const std::string head = "sheet = \"texture\"\nname = \"T\"\n[[recognize]]\ntext = \"T\"\n";
    const std::pair<std::string, std::string> wrong[] = {
        {"[texture]\nwidth = 4\nformat = \"BC1\"\n", "\"height\""},
        {"[texture]\nwidth = 4\nheight = 4\n", "\"format\""},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC99\"\n", "BC99"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\nmips = \"some\"\n", "\"all\""},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"RGBA8\"\n[payload]\nchannels = \"rgbx\"\n", "argb"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[payload]\ntiling = \"block-linear\"\ngob_rows = 3\n", "gob_rows is 4 or 8"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[payload]\ngob_rows = 8\n", "gob_rows goes with tiling = \"block-linear\""},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[payload]\ntiling = \"tiles\"\n", "tile = [width, height]"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[payload]\ntiling = \"tiles\"\nbits = \"xyz\"\n", "letters x and y"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[palette]\nbits = 4\n", "[palette] says how texels are stored"},
        {"[texture]\nwidth = 4\nheight = 4\n[palette]\nbits = 3\n", "1, 2, 4 or 8"},
        {"[texture]\nwidth = 4\nheight = 4\n[palette]\nformat = \"BC1\"\n", "B5G6R5"},
        {"[texture]\nwidth = 4\nheight = 4\n[palette]\nentries = 300\n", "1 to 256 entries"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[payload]\nmethod = \"zip\"\n", "brotli, or the name of a [[packer]]"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[[sibling]]\nfile = \"../x{stem}\"\n", "same folder"},
        {"[texture]\nwidth = 4\nheight = 4\nformat = \"BC1\"\n[[sibling]]\nfile = \"{stem}.top\"\nlevels = \"tops\"\n", "tops"},
    };
    for (const auto& [body, expected] : wrong) {
        const auto sheet = parse_sheet(head + body, "t.toml");
        ASSERT_FALSE(sheet) << body;
        EXPECT_NE(sheet.error().message().find(expected), std::string::npos) << sheet.error().message();
        EXPECT_NE(sheet.error().message().find("line "), std::string::npos);
    }
}
