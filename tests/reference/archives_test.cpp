// tar in its varieties, 7z, cpio and ISO 9660, and packed single files: written by bsdtar (libarchive), Python's tarfile, cpio and xorriso,
// read and changed by us, read again by them.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "container/address.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Maker {
    const char* name;
    const char* file;
    std::string make;  ///< shell words in the folder of the input; %out stands for the archive
    std::string read;  ///< unpacks %in into the current folder
    const char* kind;
};

const std::vector<Maker> makers = {
    {"ustar", "a.tar", "bsdtar --format ustar -cf %out *", "bsdtar -xf %in", "tar"},
    {"pax", "a.tar", "bsdtar --format pax -cf %out *", "bsdtar -xf %in", "tar"},
    {"gnutar", "a.tar", "bsdtar --format gnutar -cf %out *", "tar -xf %in", "tar"},
    {"old_tar", "a.tar", "bsdtar --format v7tar -cf %out *", "bsdtar -xf %in", "tar"},
    {"python_pax", "a.tar",
     "python3 -c \"import tarfile,os,sys; t=tarfile.open(sys.argv[1],'w',format=tarfile.PAX_FORMAT); [t.add(n) for n in "
     "sorted(os.listdir('.'))]\" %out",
     "tar -xf %in", "tar"},
    {"python_gnu", "a.tar",
     "python3 -c \"import tarfile,os,sys; t=tarfile.open(sys.argv[1],'w',format=tarfile.GNU_FORMAT); [t.add(n) for n in "
     "sorted(os.listdir('.'))]\" %out",
     "tar -xf %in", "tar"},
    {"tar_gz", "a.tar.gz", "bsdtar -czf %out *", "tar -xzf %in", "tar in gzip"},
    {"tar_xz", "a.tar.xz", "bsdtar -cJf %out *", "tar -xJf %in", "tar in xz"},
    {"tar_bz2", "a.tbz", "bsdtar -cjf %out *", "tar -xjf %in", "tar in bzip2"},
    {"tar_zst", "a.tar.zst", "bsdtar --zstd -cf %out *", "zstd -q -dc %in | tar -x", "tar in zstd"},
    {"tar_lz4", "a.tar.lz4", "bsdtar --lz4 -cf %out *", "lz4 -q -dc %in | tar -x", "tar in lz4"},
    {"seven", "a.7z", "bsdtar --format 7zip -cf %out *", "bsdtar -xf %in", "7z"},
    {"cpio_newc", "a.cpio", "bsdtar --format newc -cf %out *", "cpio -id --quiet < %in", "cpio"},
    {"cpio_crc", "a.cpio", "find . -type f | cpio -o --quiet -H crc > %out", "cpio -id --quiet < %in", "cpio"},
    {"cpio_bin", "a.cpio", "find . -depth | cpio -o --quiet -H bin > %out", "bsdtar -xf %in", "cpio"},
    {"cpio_odc", "a.cpio", "find . -type f | sed 's:^./::' | cpio -o --quiet -H odc > %out", "cpio -id --quiet < %in", "cpio"},
};

class Archives : public testing::TestWithParam<Maker> {
protected:
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    std::filesystem::path path = folder / GetParam().file;
    const std::string long_name = "a folder with a name/" + std::string(90, 'n') + "/horse.dds";
    std::map<std::string, Bytes> content = {{"rides/horse.dds", make_dds(Format::BC1, 64, 64)},
                                            {"text.txt", bytes_of(std::string(3003, 'f'))},
                                            {"odd", random_bytes(777, 4)},
                                            {"empty", {}}};

    void SetUp() override {
        if (std::string(GetParam().name) != "old_tar") content[long_name] = random_bytes(100, 9);
        for (const auto& [name, data] : content) put_file(folder / ("in/" + name), data);
        shell(GetParam().make, "in");
    }
    void shell(std::string words, const char* where) {
        for (const char* mark : {"%out", "%in"})
            for (auto at = words.find(mark); at != std::string::npos; at = words.find(mark, at + path.string().size()))
                words.replace(at, std::strlen(mark), path.string());
        std::filesystem::create_directories(folder / where);
        const auto ran = run_program({"sh", "-c", words}, (folder / where).string());
        ASSERT_EQ(ran.code, 0) << words << "\n" << ran.output;
    }
    std::shared_ptr<const Container> open() {
        auto opened = open_source(context, path);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? *opened : nullptr;
    }
    void expect_content(const Container& archive) {
        std::size_t found = 0;
        for (std::size_t i = 0; i < archive.entries().size(); ++i) {
            const auto wanted = content.find(archive.entries()[i].path);
            ASSERT_NE(wanted, content.end()) << archive.entries()[i].path;
            const auto read = archive.read(i, ReadLimits{});
            ASSERT_TRUE(read) << read.error().message();
            EXPECT_EQ(*read, wanted->second) << wanted->first;
            EXPECT_EQ(archive.read_head(i, 64)->size(), std::min<std::size_t>(64, read->size()));
            ++found;
        }
        EXPECT_EQ(found, content.size());
    }
};
INSTANTIATE_TEST_SUITE_P(By, Archives, testing::ValuesIn(makers), [](const auto& p) { return p.param.name; });

}  // namespace

TEST_P(Archives, AreReadChangedAndReadByOthers) {
    const auto before = get_file(path);
    auto archive = open();
    ASSERT_TRUE(archive);
    EXPECT_EQ(archive->kind(), GetParam().kind);
    expect_content(*archive);
    for (std::size_t i = 0; i < archive->entries().size(); ++i) {
        const auto same = archive->plan(std::vector<Replacement>{{i, content[archive->entries()[i].path]}}, ReadLimits{});
        ASSERT_TRUE(same) << same.error().message();
        EXPECT_TRUE(same->empty()) << "identity";
    }
    // The same size, more, less and nothing: one after the other, then all in one delivery.
    Vault vault(folder / "vault", files);
    const auto put = [&](std::vector<std::pair<std::string, Bytes>> items) {
        archive = open();
        std::vector<Replacement> all;
        for (auto& [name, data] : items) {
            all.push_back({*archive->find(name), data});
            content[name] = data;
        }
        const auto plan = archive->plan(all, ReadLimits{});
        ASSERT_TRUE(plan) << plan.error().message();
        const auto done = vault.deliver(*plan, {"t", path, {}}, 1);
        ASSERT_TRUE(done) << done.error().message();
        expect_content(*open());
    };
    put({{"odd", random_bytes(777, 5)}});
    put({{"rides/horse.dds", random_bytes(9000, 5)}});
    put({{"text.txt", bytes_of("short")}});
    put({{"empty", random_bytes(1500, 6)}, {"odd", {}}, {"rides/horse.dds", random_bytes(600, 7)}});
    shell(GetParam().read, "out");
    for (const auto& [name, data] : content) EXPECT_EQ(get_file(folder / ("out/" + name)), data) << name;
    ASSERT_EQ(*vault.restore(path), 4u);
    EXPECT_EQ(get_file(path), before);
}

TEST_P(Archives, EveryFlippedByteIsAnErrorOrContentNeverACrash) {
    const auto whole = get_file(path);
    const std::size_t step = std::max<std::size_t>(1, whole.size() / 150);
    for (std::size_t at = 0; at < whole.size(); at += step) {
        for (const bool cut : {false, true}) {
            auto broken = whole;
            if (cut) broken.resize(at);
            else broken[at] ^= std::byte{0x81};
            auto opened = open_container(context, FileView::of(broken, path));
            if (!opened) continue;
            for (std::size_t i = 0; i < (*opened)->entries().size(); ++i) {
                (void)(*opened)->read(i, ReadLimits{});
                (void)(*opened)->read_head(i, 100);
            }
            (void)(*opened)->segments();
            if (!(*opened)->entries().empty()) (void)(*opened)->plan(std::vector<Replacement>{{0, bytes_of("x")}}, ReadLimits{});
        }
    }
}

TEST(TarInPlace, OneByteChangesOneByte) {
    TempFolder folder;
    put_file(folder / "in/a", random_bytes(1'000'000, 1));
    put_file(folder / "in/b", random_bytes(5000, 2));
    ASSERT_EQ(run_program({"tar", "-cf", "../a.tar", "a", "b"}, (folder / "in").string()).code, 0);
    const auto archive = *open_source(ReadContext{}, folder / "a.tar");
    auto fresh = random_bytes(1'000'000, 1);
    fresh[77] ^= std::byte{1};
    const auto plan = *archive->plan(std::vector<Replacement>{{0, fresh}}, ReadLimits{});
    EXPECT_EQ(plan.way(), Way::in_place);
    EXPECT_EQ(plan.bytes_written(), 1u);
    const auto moved = *archive->plan(std::vector<Replacement>{{1, random_bytes(6000, 2)}}, ReadLimits{});
    EXPECT_LT(moved.bytes_written(), 14'000u) << "what comes behind it moves over itself";
    EXPECT_LT(kept_bytes(moved.files[0]), 12'000u) << "the megabyte before it is not kept";
    const auto anew = *archive->plan(std::vector<Replacement>{{0, random_bytes(1'100'000, 2)}}, ReadLimits{});
    EXPECT_EQ(anew.way(), Way::rebuild);
}

TEST(Iso, IsReadAndSaysThatItIsOnlyRead) {
    TempFolder folder;
    put_file(folder / "in/rides/horse.dds", make_dds(Format::BC1, 64, 64));
    put_file(folder / "in/readme.txt", bytes_of("open daily"));
    const auto path = (folder / "fair.iso").string();
    const auto made = run_program({"xorriso", "-as", "mkisofs", "-quiet", "-R", "-o", path, (folder / "in").string()});
    ASSERT_EQ(made.code, 0) << made.output;
    const auto opened = open_source(ReadContext{}, path);
    ASSERT_TRUE(opened) << opened.error().message();
    EXPECT_EQ((*opened)->kind(), "ISO 9660");
    EXPECT_EQ(*(*opened)->read(*(*opened)->find("rides/horse.dds"), ReadLimits{}), make_dds(Format::BC1, 64, 64));
    const auto plan = (*opened)->plan(std::vector<Replacement>{{0, {}}}, ReadLimits{});
    ASSERT_FALSE(plan);
    EXPECT_EQ(plan.error().message(), "an ISO 9660 image is only read. Deliver into an override folder instead, if the game has one");
}

TEST(PackedFiles, AreOneEntryWithTheNameInside) {
    TempFolder folder;
    const auto texture = make_dds(Format::BC1, 64, 64);
    put_file(folder / "horse.dds", texture);
    ASSERT_EQ(run_program({"gzip", "-k", "horse.dds"}, folder.path().string()).code, 0);
    ReadContext context;
    const auto address = *parse_address((folder / "horse.dds.gz").string() + "::horse.dds");
    EXPECT_EQ(*read_address(context, address), texture);
    auto fresh = texture;
    fresh[200] ^= std::byte{1};
    const auto plan = plan_replacement(context, address, fresh);
    ASSERT_TRUE(plan) << plan.error().message();
    PosixFiles files;
    ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"t", address.source, {}}, 1));
    EXPECT_EQ(run_program({"sh", "-c", "gzip -dc horse.dds.gz > back.dds"}, folder.path().string()).code, 0);
    EXPECT_EQ(get_file(folder / "back.dds"), fresh);
}

TEST(CutFiles, AreOneArchiveAgain) {
    TempFolder folder;
    put_file(folder / "in/a", random_bytes(100'000, 1));
    put_file(folder / "in/b", random_bytes(50'000, 2));
    ASSERT_EQ(run_program({"sh", "-c",
                           "zip -q -0 ../whole.zip a b && cd .. && mkdir dump && split -b 40960 -d -a 2 whole.zip dump/game.zip. && split "
                           "-b 30001 --numeric-suffixes=1 -a 3 whole.zip dump/odd.zip."},
                          (folder / "in").string())
                  .code,
              0);
    ReadContext context;
    PosixFiles files;
    const auto dump = *open_source(context, folder / "dump");
    ASSERT_EQ(dump->entries().size(), 2u) << "the parts are not seen any more";
    EXPECT_EQ(dump->entries()[0].path, "game.zip");
    EXPECT_EQ(dump->entries()[0].size, std::filesystem::file_size(folder / "whole.zip"));
    for (const std::string name : {"game.zip", "odd.zip"}) {
        const auto address = *parse_address((folder / "dump").string() + "::" + name + "::b");
        EXPECT_EQ(*read_address(context, address), random_bytes(50'000, 2)) << name;
        auto fresh = random_bytes(50'000, 2);
        for (std::size_t i = 100; i < 20'000; ++i) fresh[i] ^= std::byte{1};
        const auto plan = plan_replacement(context, address, fresh);
        ASSERT_TRUE(plan) << plan.error().message();
        EXPECT_LT(plan->bytes_written(), 20'200u) << "only the changed bytes of the parts they lie in";
        Vault vault(folder / "vault", files);
        ASSERT_TRUE(vault.deliver(*plan, {"t", folder / "dump", {}}, 1));
        ASSERT_EQ(run_program({"sh", "-c", "cat dump/" + name + ".* > joined.zip"}, folder.path().string()).code, 0);
        EXPECT_EQ(run_program({"unzip", "-tqq", (folder / "joined.zip").string()}).code, 0) << name;
        EXPECT_EQ(*read_address(context, address), fresh);
        ASSERT_EQ(*vault.restore(folder / "dump"), 1u);
        ASSERT_EQ(run_program({"sh", "-c", "cat dump/" + name + ".* | cmp - whole.zip"}, folder.path().string()).code, 0);
        // As a source of its own, by the name of any part or of the whole.
        for (const auto& source : {folder / ("dump/" + name + (name[0] == 'g' ? ".01" : ".002")), folder / ("dump/" + name)})
            EXPECT_TRUE(open_source(context, source)) << source;
    }
    std::filesystem::remove(folder / "dump/game.zip.02");
    const auto broken = open_source(context, folder / "dump/game.zip.00");
    ASSERT_FALSE(broken);
    EXPECT_EQ(broken.error().message(),
              "the part game.zip.02 is not there. game.zip is cut into parts; all of them must lie in one folder");
    EXPECT_FALSE((*open_source(context, folder / "dump"))->problems().empty());
}
