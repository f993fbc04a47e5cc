// ZIP in full: every method, encryption, split and damaged archives, by and for other programs: bsdtar (libarchive), libzip, zip and unzip,
// Python's zipfile, and an independent writer (zip_methods.py).
#include <gtest/gtest.h>

#include <zip.h>
#include <filesystem>
#include <string>
#include <vector>

#include "container/kinds.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct ZipMethods : testing::Test {
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    Bytes data = random_bytes(40'000, 2);
    std::string path = (folder / "made.zip").string();

    ZipMethods() {
        for (std::size_t i = 0; i < data.size(); i += 2) data[i] = std::byte{'f'};
    }
    std::shared_ptr<const Container> open() {
        auto opened = open_source(context, path);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? *opened : nullptr;
    }
    void replace(std::size_t entry, const Bytes& content) {
        const auto plan = open()->plan(std::vector<Replacement>{{entry, content}}, ReadLimits{});
        ASSERT_TRUE(plan) << plan.error().message();
        const auto done = Vault(folder / "vault", files).deliver(*plan, {"t", path, {}}, 1);
        ASSERT_TRUE(done) << done.error().message();
    }
    void add_key(const char* text) {
        auto ring = std::make_shared<KeyRing>(*context.keys);
        ring->add(*parse_key(text));
        context.keys = ring;
    }
};

}  // namespace

TEST_F(ZipMethods, AllAreReadReplacedAndReadByBsdtar) {
    put_file(folder / "horse.dds", data);
    const auto made =
        run_program({"python3", std::string(tests_folder) + "/reference/zip_methods.py", path, (folder / "horse.dds").string()});
    ASSERT_EQ(made.code, 0) << made.output;
    const auto before = get_file(path);
    const auto zip = open();
    ASSERT_EQ(zip->entries().size(), 6u);
    std::vector<std::string_view> methods;
    for (std::size_t i = 0; i < 6; ++i) {
        methods.push_back(zip->entries()[i].method);
        const auto read = zip->read(i, ReadLimits{});
        ASSERT_TRUE(read) << read.error().message();
        EXPECT_EQ(*read, data) << methods.back();
        EXPECT_EQ(*zip->read_head(i, 100), Bytes(data.begin(), data.begin() + 100)) << methods.back();
        EXPECT_TRUE(zip->plan(std::vector<Replacement>{{i, data}}, ReadLimits{})->empty()) << "identity, " << methods.back();
    }
    EXPECT_EQ(methods, (std::vector<std::string_view>{"stored", "deflate", "bzip2", "lzma", "zstd", "xz"}));
    std::vector<Bytes> fresh;
    for (std::size_t i = 0; i < 6; ++i) {
        fresh.push_back(data);
        fresh.back()[i * 100] ^= std::byte{0x33};
        fresh.back().resize(data.size() - i * 10);
        replace(i, fresh.back());
    }
    for (std::size_t i = 0; i < 6; ++i) EXPECT_EQ(*open()->read(i, ReadLimits{}), fresh[i]) << methods[i];
    std::filesystem::create_directories(folder / "out");
    const auto extracted = run_program({"bsdtar", "-xf", path, "-C", (folder / "out").string()});
    EXPECT_EQ(extracted.code, 0) << extracted.output;
    const char* names[] = {"0", "8", "12", "14", "93", "95"};
    for (std::size_t i = 0; i < 6; ++i)
        EXPECT_EQ(get_file(folder / (std::string("out/") + names[i] + "/horse.dds")), fresh[i]) << methods[i];
    const auto python =
        run_program({"python3", "-c",
                     "import zipfile,sys; z=zipfile.ZipFile(sys.argv[1]); [z.read(n+'/horse.dds') for n in ('0','8','12','14')]", path});
    EXPECT_EQ(python.code, 0) << "Python checks the checksums of the methods it knows: " << python.output;
    EXPECT_EQ(*Vault(folder / "vault", files).restore(path), 6u);
    EXPECT_EQ(get_file(path), before);
}

namespace {

class Encrypted : public ZipMethods, public testing::WithParamInterface<zip_uint16_t> {
protected:
    void SetUp() override {
        int error = 0;
        auto* zip = ::zip_open(path.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &error);
        ASSERT_NE(zip, nullptr);
        for (const char* name : {"stored.bin", "deflated.bin", "plain.bin"}) {
            const auto index =
                static_cast<zip_uint64_t>(::zip_file_add(zip, name, ::zip_source_buffer(zip, data.data(), data.size(), 0), 0));
            ::zip_set_file_compression(zip, index, name[0] == 's' ? ZIP_CM_STORE : ZIP_CM_DEFLATE, 0);
            if (name[0] != 'p') ASSERT_EQ(::zip_file_set_encryption(zip, index, GetParam(), "ticket booth"), 0);
        }
        ASSERT_EQ(::zip_close(zip), 0);
    }
    Bytes by_libzip(const char* name, const char* password) {
        int error = 0;
        auto* zip = ::zip_open(path.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &error);
        if (!zip) return {};
        ::zip_set_default_password(zip, password);
        Bytes out(200'000);
        zip_int64_t got = -1;
        if (auto* file = ::zip_fopen(zip, name, 0)) {
            got = ::zip_fread(file, out.data(), out.size());
            ::zip_fclose(file);
        }
        ::zip_close(zip);
        out.resize(static_cast<std::size_t>(std::max<zip_int64_t>(got, 0)));
        return out;
    }
};
INSTANTIATE_TEST_SUITE_P(ByLibzip, Encrypted, testing::Values(ZIP_EM_TRAD_PKWARE, ZIP_EM_AES_128, ZIP_EM_AES_192, ZIP_EM_AES_256));

}  // namespace

TEST_P(Encrypted, IsReadAndWrittenWithTheKeyFromTheRing) {
    const auto before = get_file(path);
    {
        const auto without = open()->read(0, ReadLimits{});
        ASSERT_FALSE(without);
        EXPECT_EQ(without.error().code, ErrorCode::key) << "no key is not damage";
        EXPECT_EQ(*open()->read(2, ReadLimits{}), data) << "the rest can be read";
    }
    add_key("wrong=text:shooting gallery");
    const auto wrong = open()->read(1, ReadLimits{});
    ASSERT_FALSE(wrong);
    EXPECT_EQ(wrong.error().code, ErrorCode::key) << wrong.error().message();
    EXPECT_EQ(wrong.error().message().find("gallery"), std::string::npos);
    add_key("right=text:ticket booth");
    const auto zip = open();
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_EQ(zip->entries()[i].encrypted, i != 2);
        const auto read = zip->read(i, ReadLimits{});
        ASSERT_TRUE(read) << read.error().message();
        EXPECT_EQ(*read, data);
        EXPECT_TRUE(zip->plan(std::vector<Replacement>{{i, data}}, ReadLimits{})->empty())
            << "the same content plans nothing, whatever a new salt would do";
    }
    auto fresh = data;
    fresh[5] ^= std::byte{1};
    replace(0, fresh);
    auto shorter = fresh;
    shorter.resize(30'000);
    replace(1, shorter);
    EXPECT_EQ(by_libzip("stored.bin", "ticket booth"), fresh);
    EXPECT_EQ(by_libzip("deflated.bin", "ticket booth"), shorter);
    EXPECT_NE(by_libzip("stored.bin", "another"), fresh);
    EXPECT_EQ(by_libzip("plain.bin", ""), data);
    put_file(folder / "fresh", fresh);
    const auto bsdtar = run_program(
        {"sh", "-c", "bsdtar --passphrase 'ticket booth' -xOf '" + path + "' stored.bin | cmp - '" + (folder / "fresh").string() + "'"});
    EXPECT_EQ(bsdtar.code, 0) << bsdtar.output;
    EXPECT_EQ(*Vault(folder / "vault", files).restore(path), 2u);
    EXPECT_EQ(get_file(path), before);
}

/// One wrong password in 256 passes the traditional check byte; every one of them is told as a key that does not fit.
TEST_F(ZipMethods, AWrongPasswordIsToldAsOneEvenWhenItsCheckPasses) {
    put_file(folder / "in/horse.dds", make_dds(Format::BC1, 32, 32));
    ASSERT_EQ(run_program({"zip", "-q", "-P", "ticket booth", "../locked.zip", "horse.dds"}, (folder / "in").string()).code, 0);
    std::size_t passed = 0;
    for (int i = 0; i < 1500; ++i) {
        auto ring = std::make_shared<KeyRing>();
        const auto word = "wrong " + std::to_string(i);
        ring->add({"booth", bytes_of(word)});
        ReadContext with;
        with.keys = ring;
        const auto read = (*open_source(with, folder / "locked.zip"))->read(0, with.limits);
        ASSERT_FALSE(read);
        ASSERT_NE(read.error().what.find("the key \"booth\" does not open the entry"), std::string::npos) << read.error().what;
        passed += read.error().code != ErrorCode::key;
    }
    EXPECT_GT(passed, 0u) << "1,500 of them did not try it";
}

TEST_P(Encrypted, DamageBehindTheRightKeyIsDamage) {
    add_key("right=text:ticket booth");
    auto bytes = get_file(path);
    const auto at = open()->entries()[0].at;
    bytes[static_cast<std::size_t>(at) + 200] ^= std::byte{1};
    put_file(path, bytes);
    const auto read = open()->read(0, ReadLimits{});
    ASSERT_FALSE(read);
    EXPECT_EQ(read.error().code, ErrorCode::damaged) << read.error().message();
}

TEST_F(ZipMethods, SplitArchivesOfZipAreReadAndChangedInPlace) {
    put_file(folder / "in/a.bin", random_bytes(90'000, 1));
    put_file(folder / "in/b.bin", random_bytes(90'000, 2));
    put_file(folder / "in/text.txt", bytes_of(std::string(5000, 't')));
    ASSERT_EQ(run_program({"sh", "-c", "cd '" + (folder / "in").string() + "' && zip -q -0 -s 64k -r '" + path + "' ."}).code, 0);
    ASSERT_TRUE(std::filesystem::exists(folder / "made.z02"));
    const auto before = get_file(folder / "made.z01");
    const auto zip = open();
    ASSERT_EQ(zip->entries().size(), 3u);
    for (std::size_t i = 0; i < 3; ++i) {
        const auto read = zip->read(i, ReadLimits{});
        ASSERT_TRUE(read) << read.error().message();
        EXPECT_EQ(*read, get_file(folder / ("in/" + zip->entries()[i].path)));
    }
    const auto a = *zip->find("a.bin");
    const auto fresh = random_bytes(90'000, 7);  // packs to the same size: random data stays as it is
    const auto plan = zip->plan(std::vector<Replacement>{{a, fresh}}, ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    EXPECT_GE(plan->files.size(), 2u) << "the entry and the directory lie in different parts";
    ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"t", path, {"a.bin"}}, 1));
    EXPECT_EQ(*open()->read(a, ReadLimits{}), fresh);
    const auto joined = (folder / "joined.zip").string();
    ASSERT_EQ(run_program({"zip", "-q", "-s", "0", path, "--out", joined}).code, 0);
    EXPECT_EQ(run_program({"unzip", "-tqq", joined}).code, 0) << "zip joins what we wrote and unzip checks it";
    const auto other = zip->plan(std::vector<Replacement>{{*zip->find("text.txt"), random_bytes(400, 1)}}, ReadLimits{});
    ASSERT_FALSE(other);
    EXPECT_EQ(other.error().code, ErrorCode::unsupported);
    ASSERT_EQ(*Vault(folder / "vault", files).restore(path), 1u);
    EXPECT_EQ(get_file(folder / "made.z01"), before);
    std::filesystem::remove(folder / "made.z02");
    const auto missing = open_source(context, path);
    ASSERT_FALSE(missing);
    EXPECT_EQ(missing.error().code, ErrorCode::missing);
    EXPECT_NE(missing.error().message().find("the last of 3 parts, 2 of them are here"), std::string::npos) << missing.error().message();
}

TEST_F(ZipMethods, ADamagedDirectoryIsRebuiltFromLocalHeaders) {
    put_file(folder / "in/a.bin", random_bytes(9000, 1));
    put_file(folder / "in/text.txt", bytes_of(std::string(5000, 't')));
    for (const char* options : {"-r '%' .", "-r - . > '%'"}) {  // sizes before the data, and behind it
        std::string words = std::string("cd '") + (folder / "in").string() + "' && rm -f '" + path + "' && zip -q " + options;
        words.replace(words.find('%'), 1, path);
        ASSERT_EQ(run_program({"sh", "-c", words}).code, 0);
        const auto whole = get_file(path);
        const auto directory = as_text(whole).find("PK\x01\x02");
        for (const int how : {0, 1, 2}) {
            auto bytes = whole;
            if (how == 0) bytes.resize(directory);                      // cut off
            if (how == 1) bytes[bytes.size() - 10] ^= std::byte{0x7F};  // the end record points elsewhere
            if (how == 2)
                for (std::size_t i = directory; i < directory + 60; ++i) bytes[i] = std::byte{0};
            put_file(path, bytes);
            const auto zip = open();
            ASSERT_TRUE(zip) << options << how;
            ASSERT_EQ(zip->entries().size(), 2u) << options << how;
            for (std::size_t i = 0; i < 2; ++i) {
                const auto read = zip->read(i, ReadLimits{});
                ASSERT_TRUE(read) << read.error().message();
                EXPECT_EQ(*read, get_file(folder / ("in/" + zip->entries()[i].path)));
            }
            EXPECT_FALSE(zip->read_only().empty());
            EXPECT_FALSE(zip->problems().empty());
            EXPECT_EQ(zip->plan(std::vector<Replacement>{{0, {}}}, ReadLimits{}).error().code, ErrorCode::unsupported);
        }
    }
}

TEST_F(ZipMethods, CompactGivesDeadSpaceBackAndOthersReadIt) {
    put_file(folder / "in/rides/a.bin", random_bytes(9000, 1));
    put_file(folder / "in/b.bin", random_bytes(7000, 2));
    put_file(folder / "in/text.txt", bytes_of(std::string(5000, 't')));
    ASSERT_EQ(run_program({"zip", "-q", "-r", path, "."}, (folder / "in").string()).code, 0);
    EXPECT_EQ(open()->dead_bytes(), 0u);
    EXPECT_TRUE(open()->plan_compact(ReadLimits{})->empty());
    const auto before = get_file(path);
    for (const char* name : {"rides/a.bin", "b.bin"}) replace(*open()->find(name), random_bytes(12'000, 3));
    EXPECT_GT(open()->dead_bytes(), 7'000u);
    const auto plan = open()->plan_compact(ReadLimits{});
    ASSERT_TRUE(plan);
    EXPECT_EQ(plan->way(), Way::rebuild);
    EXPECT_LT(kept_bytes(plan->files[0]), 9'000u) << "only what is dropped is kept for the way back";
    ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"compact", path, {}}, 1));
    EXPECT_EQ(open()->dead_bytes(), 0u);
    EXPECT_EQ(*open()->read(*open()->find("b.bin"), ReadLimits{}), random_bytes(12'000, 3));
    EXPECT_EQ(run_program({"unzip", "-tqq", path}).code, 0);
    EXPECT_EQ(run_program({"sh", "-c", "bsdtar -tf '" + path + "' | grep -q '^rides/$'"}).code, 0)
        << "the folder's own record is still there";
    EXPECT_EQ(*Vault(folder / "vault", files).restore(path), 3u);
    EXPECT_EQ(get_file(path), before);
}

TEST_F(ZipMethods, APatchArchiveHoldsOnlyTheChangedEntries) {
    put_file(folder / "in/rides/a.bin", random_bytes(9000, 1));
    put_file(folder / "in/b.bin", random_bytes(7000, 2));
    ASSERT_EQ(run_program({"zip", "-q", "-r", path, "."}, (folder / "in").string()).code, 0);
    const auto patch = open()->patch_archive(std::vector<Replacement>{{*open()->find("rides/a.bin"), random_bytes(800, 9)}}, ReadLimits{});
    ASSERT_TRUE(patch) << patch.error().message();
    put_file(folder / "patch.zip", *patch);
    const auto opened = open_source(context, folder / "patch.zip");
    ASSERT_TRUE(opened);
    ASSERT_EQ((*opened)->entries().size(), 1u);
    EXPECT_EQ(*(*opened)->read(0, ReadLimits{}), random_bytes(800, 9));
    EXPECT_EQ(run_program({"unzip", "-tqq", (folder / "patch.zip").string()}).code, 0);
}
