// The file: written, read, read by somebody else, and refused when it is not sound.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>
#include <random>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/zip.h"
#include "parcel/manifest.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open_texture(Bytes file) { return *TextureFile::open(TextureKinds::standard(), std::move(file), "x.dds", ReadLimits{}); }

/// A stroke through the largest level; the smaller ones follow.
TextureFile stroked(const TextureFile& original, unsigned seed) {
    auto out = original;
    const auto& desc = original.layout.desc;
    std::vector<SurfaceEdit> edits;
    for (std::size_t s = 0; s < original.layout.surfaces.size(); ++s) {
        const auto& surface = original.layout.surfaces[s];
        const auto before = *original.decode(surface.mip);
        auto image = before;
        for (std::uint32_t x = 0; x < image.width / 2; ++x) {
            auto& texel = image.at(x, (x + seed) % image.height);
            texel = {static_cast<std::uint8_t>(255 - texel[0]), static_cast<std::uint8_t>(x * 7), 40, texel[3]};
        }
        edits.push_back({s, *encode_changed(desc.format, image, before, *original.surface_bytes(surface))});
    }
    out.file = *original.kind->replace(original.file, original.layout, edits);
    return out;
}

struct ParcelFile : testing::Test {
    TempFolder folder;
    std::vector<TextureFile> originals, edited;
    Parcel parcel;

    void SetUp() override {
        parcel.about = {"lanterns-relit",           "Lanterns, relit", "E. Wick",        "1.2",          "CC-BY-4.0",
                        "Warm light.\nTwo booths.", "Brindle Fair",    {{"bulbs", "2"}}, {{"night", ""}}};
        unsigned seed = 0;
        for (const auto format : {Format::BC1, Format::BC7, Format::RGBA8}) {
            originals.push_back(open_texture(make_dds(format, 64, 32, 0, ++seed)));
            edited.push_back(stroked(originals.back(), seed));
            auto one = parcel_texture(originals.back(), edited.back(), false);
            ASSERT_TRUE(one) << one.error().message();
            one->source = "midway.zip";
            one->group = "base";
            one->inner = {"rides.crate", fmt::format("lantern_{}.dds", seed)};
            parcel.textures.push_back(std::move(*one));
        }
        auto whole = *parcel_texture(originals[0], open_texture(make_dds(Format::BC1, 128, 128, 0, 9)), true);
        whole.inner = {"sign.dds"};
        parcel.textures.push_back(std::move(whole));
        const PictureOf shown[] = {{0, &originals[0], &edited[0]}, {1, &originals[1], &edited[1]}};
        add_pictures(parcel, shown);
    }
};

}  // namespace

TEST_F(ParcelFile, ComesBackAsItWas) {
    const auto file = *write_parcel(parcel);
    EXPECT_TRUE(is_parcel(file));
    EXPECT_EQ(*write_parcel(parcel), file) << "and is the same each time";
    const auto back = read_parcel(FileView::of(file, "x"), ReadLimits{});
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(back->about.title, "Lanterns, relit");
    EXPECT_EQ(back->about.needs, parcel.about.needs);
    EXPECT_EQ(back->about.notes, parcel.about.notes);
    ASSERT_EQ(back->textures.size(), 4u);
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_EQ(back->textures[i].inner, parcel.textures[i].inner);
        EXPECT_EQ(*apply(originals[i], back->textures[i].change), edited[i].file);
        EXPECT_EQ(back->textures[i].becomes_file, to_hex(sha256(edited[i].file)));
        EXPECT_TRUE(back->textures[i].desc == originals[i].layout.desc);
    }
    EXPECT_EQ(back->textures[3].whole, parcel.textures[3].whole);
    ASSERT_TRUE(back->textures[0].before && back->textures[0].after);
    const auto picture = read_picture(*back->textures[0].after);
    ASSERT_TRUE(picture) << picture.error().message();
    EXPECT_EQ(picture->width, 64u);
    EXPECT_FALSE(back->textures[2].before);
}

// docs/parcels.md, by a program that knows nothing else of Skivet.
TEST_F(ParcelFile, IsReadByAnotherProgram) {
    put_file(folder / "x.parcel", *write_parcel(parcel));
    const std::string script = std::string(tests_folder) + "/parcel/read_parcel.py";
    const auto told = run_program({"python3", script, (folder / "x.parcel").string()});
    EXPECT_EQ(told.code, 0) << told.output;
    EXPECT_NE(told.output.find("lanterns-relit | Lanterns, relit\nrides.crate::lantern_1.dds change"), std::string::npos) << told.output;
    for (std::size_t i = 0; i < 3; ++i) {
        put_file(folder / "was.dds", originals[i].file);
        const auto ran = run_program({"python3", script, (folder / "x.parcel").string(), (folder / "was.dds").string(),
                                      parcel.textures[i].inner.back(), (folder / "is.dds").string()});
        ASSERT_EQ(ran.code, 0) << ran.output;
        EXPECT_EQ(get_file(folder / "is.dds"), edited[i].file);
    }
    EXPECT_EQ(run_program({"unzip", "-tqq", (folder / "x.parcel").string()}).code, 0);
}

// And the other way round: one that another program wrote.
TEST_F(ParcelFile, ReadsWhatAnotherProgramWrote) {
    put_file(folder / "x.parcel", *write_parcel(parcel));
    const auto ran = run_program({"python3", "-c",
                                  "import sys,zipfile\n"
                                  "a=zipfile.ZipFile(sys.argv[1])\n"
                                  "b=zipfile.ZipFile(sys.argv[2],'w',zipfile.ZIP_STORED)\n"
                                  "for n in a.namelist(): b.writestr(n,a.read(n))\n"
                                  "b.writestr('readme.txt','not named, not read')\n",
                                  (folder / "x.parcel").string(), (folder / "y.parcel").string()});
    ASSERT_EQ(ran.code, 0) << ran.output;
    const auto back = read_parcel(*FileView::open(folder / "y.parcel"), ReadLimits{});
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(back->textures[1].change, parcel.textures[1].change);
}

TEST_F(ParcelFile, HoldsNothingOfTheOriginals) {
    // Without pictures, which show the original made small.
    for (auto& t : parcel.textures) t.before.reset(), t.after.reset();
    parcel.textures.pop_back();
    const auto file = *write_parcel(parcel);
    std::vector<Bytes> inside{file};
    const auto zip = *open_container(ReadContext{}, FileView::of(file, "x.zip"));
    for (std::size_t i = 0; i < zip->entries().size(); ++i) inside.push_back(*zip->read(i, ReadLimits{}));
    for (const auto& original : originals) {
        std::set<std::string> runs;
        const auto text = as_text(original.file);
        for (std::size_t at = 128; at + 64 <= text.size(); ++at) runs.insert(text.substr(at, 64));
        for (const auto& bytes : inside) {
            const auto there = as_text(bytes);
            for (std::size_t at = 0; at + 64 <= there.size(); ++at) ASSERT_FALSE(runs.contains(there.substr(at, 64))) << at;
        }
    }
}

TEST_F(ParcelFile, WhatIsNoChangeNeedsTheModdersWord) {
    const auto refused = parcel_texture(originals[0], open_texture(make_dds(Format::BC7, 64, 32, 0, 1)), false);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::unsupported);
    EXPECT_NE(refused.error().what.find("BC1"), std::string::npos);
    EXPECT_NE(refused.error().advice.find("your own"), std::string::npos);
    // The game's own picture, compressed again, is nobody's: nearly every block is another one.
    auto again = originals[0];
    for (std::size_t i = 128; i < again.file.size(); i += 8) again.file[i] ^= std::byte{1};
    const auto anew = parcel_texture(originals[0], again, false);
    ASSERT_FALSE(anew);
    EXPECT_NE(anew.error().what.find("nearly all"), std::string::npos);
    const auto own = parcel_texture(originals[0], again, true);
    ASSERT_TRUE(own) << own.error().message();
    EXPECT_TRUE(own->own && own->whole.empty());
}

TEST_F(ParcelFile, AnUnsoundManifestIsRefusedWithWords) {
    const auto file = *write_parcel(parcel);
    const auto zip = *open_container(ReadContext{}, FileView::of(file, "x.zip"));
    const auto good = nlohmann::json::parse(as_text(*zip->read(*zip->find("parcel.json"), ReadLimits{})));
    const auto refuse = [&](const std::string& pointer, const nlohmann::json& value, ErrorCode code, const std::string& says) {
        auto bad = good;
        bad[nlohmann::json::json_pointer(pointer)] = value;
        const auto read = read_manifest(bad.dump(), ReadLimits{});
        ASSERT_FALSE(read) << pointer;
        EXPECT_EQ(read.error().code, code) << pointer << ": " << read.error().message();
        EXPECT_NE(read.error().message().find(says), std::string::npos) << pointer << ": " << read.error().message();
    };
    ASSERT_TRUE(read_manifest(good.dump(), ReadLimits{}));
    refuse("/parcel", 2, ErrorCode::unsupported, "version 2");
    refuse("/id", "Not An Id", ErrorCode::damaged, "id");
    refuse("/id", "../x", ErrorCode::damaged, "id");
    refuse("/title", "", ErrorCode::damaged, "title");
    refuse("/title", std::string(300, 'x'), ErrorCode::damaged, "300 bytes");
    refuse("/title", 7, ErrorCode::damaged, "no text");
    refuse("/textures", "many", ErrorCode::damaged, "no list");
    refuse("/textures/0", 3, ErrorCode::damaged, "texture 1");
    refuse("/textures/1/path", nlohmann::json::array(), ErrorCode::damaged, "texture 2");
    refuse("/textures/0/path/0", 4, ErrorCode::damaged, "path");
    refuse("/textures/0/change", "../../out", ErrorCode::damaged, "no name");
    refuse("/textures/0/change", "/etc/passwd", ErrorCode::damaged, "no name");
    refuse("/textures/0/change", "parcel.json", ErrorCode::damaged, "no name");
    refuse("/textures/0/whole", "x", ErrorCode::damaged, "one of");
    refuse("/textures/0/was/file", "beef", ErrorCode::damaged, "SHA-256");
    refuse("/textures/0/was", nlohmann::json::object(), ErrorCode::damaged, "of what");
    refuse("/textures/0/texture/format", "BC9", ErrorCode::damaged, "BC9");
    refuse("/textures/0/texture/width", -5, ErrorCode::damaged, "whole number");
    refuse("/textures/0/texture/width", 4000000000u, ErrorCode::limit, "");
    refuse("/textures/0/texture/layers", 4000000000u, ErrorCode::limit, "");
    refuse("/needs", nlohmann::json::array({"x"}), ErrorCode::damaged, "needs");
    std::string deep;
    for (int i = 0; i < 100000; ++i) deep += '[';
    EXPECT_FALSE(read_manifest(deep, ReadLimits{}));
    auto nested = good;
    for (int i = 0; i < 20; ++i) nested["x"] = nlohmann::json::array({nested["x"]});
    const auto read = read_manifest(nested.dump(), ReadLimits{});
    ASSERT_FALSE(read);
    EXPECT_EQ(read.error().code, ErrorCode::limit);
}

TEST_F(ParcelFile, DamageAnywhereIsAnErrorOrNothing) {
    const auto file = *write_parcel(parcel);
    // Of a file that ends in its directory everything may still be there; then all of it is right.
    for (std::size_t size = 0; size < file.size(); size += 41) {
        const auto read =
            read_parcel(FileView::of(Bytes(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(size)), "x"), ReadLimits{});
        if (size < file.size() * 3 / 4) EXPECT_FALSE(read) << size;
        if (!read) continue;
        ASSERT_EQ(read->textures.size(), parcel.textures.size());
        for (std::size_t t = 0; t < parcel.textures.size(); ++t) {
            EXPECT_EQ(read->textures[t].change, parcel.textures[t].change);
            EXPECT_EQ(read->textures[t].whole, parcel.textures[t].whole);
        }
    }
    std::mt19937 random(4);
    for (int i = 0; i < 600; ++i) {
        auto bad = file;
        for (int k = 0; k < 3; ++k) bad[random() % bad.size()] = static_cast<std::byte>(random());
        if (const auto read = read_parcel(FileView::of(std::move(bad), "x"), ReadLimits{}))
            for (std::size_t t = 0; t < 3; ++t)
                if (read->textures[t].desc == originals[t].layout.desc) (void)apply(originals[t], read->textures[t].change);
    }
}

TEST(ParcelId, IsMadeOfATitle) {
    EXPECT_EQ(parcel_id("Lanterns, relit!"), "lanterns-relit");
    EXPECT_EQ(parcel_id("  Größe 2 "), "gr-e-2");
    EXPECT_EQ(parcel_id("…"), "mod");
    EXPECT_LE(parcel_id(std::string(500, 'a')).size(), 64u);
    EXPECT_TRUE(check_about({parcel_id("Lanterns, relit!"), "x", {}, {}, {}, {}, {}, {}, {}}));
}
