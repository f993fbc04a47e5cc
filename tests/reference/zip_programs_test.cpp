// ZIP archives by and for other programs: zip and unzip (Info-ZIP), bsdtar (libarchive), Python's zipfile.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "container/kinds.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Archive : testing::TestWithParam<std::string> {
    TempFolder folder;
    Bytes texture = make_dds(Format::BC1, 64, 64), text = bytes_of(std::string(3003, 'f')), odd = random_bytes(777, 4);

    void SetUp() override {
        put_file(folder / "in/rides/horse.dds", texture);
        put_file(folder / "in/text.txt", text);
        put_file(folder / "in/m\xC3\xBCsik.bin", odd);
        const auto in = (folder / "in").string(), zip = path();
        Ran ran;
        const auto& maker = GetParam();
        if (maker == "zip") ran = run_program({"zip", "-q", "-r", zip, "."}, in);
        if (maker == "zip_stored") ran = run_program({"zip", "-q", "-0", "-r", zip, "."}, in);
        if (maker == "zip_stream") ran = run_program({"sh", "-c", "zip -q -r - . > '" + zip + "'"}, in);
        if (maker == "bsdtar") ran = run_program({"bsdtar", "--format", "zip", "-cf", zip, "."}, in);
        if (maker == "python")
            ran = run_program({"python3", "-c", "import shutil,sys; shutil.make_archive(sys.argv[1][:-4],'zip','.')", zip}, in);
        if (maker == "python_zip64")
            ran = run_program({"python3", "-c",
                               "import zipfile,sys,os\nz=zipfile.ZipFile(sys.argv[1],'w',zipfile.ZIP_DEFLATED)\n"
                               "for d,_,fs in os.walk('.'):\n for f in fs:\n  p=os.path.join(d,f)[2:]\n  "
                               "h=z.open(zipfile.ZipInfo(p),'w',force_zip64=True); h.write(open(p,'rb').read()); h.close()\n"
                               "z.comment=b'made at the fair'\nz.close()",
                               zip},
                              in);
        ASSERT_EQ(ran.code, 0) << ran.output;
    }
    [[nodiscard]] std::string path() const { return (folder / "made.zip").string(); }
    [[nodiscard]] std::shared_ptr<const Container> open() const {
        auto opened = open_source(ReadContext{}, path());
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? *opened : nullptr;
    }
    static std::size_t entry(const Container& zip, const std::string& name) {
        for (std::size_t i = 0; i < zip.entries().size(); ++i)
            if (zip.entries()[i].path == name || zip.entries()[i].path == "./" + name) return i;
        ADD_FAILURE() << name << " is not there";
        return 0;
    }
    void others_are_content() const {
        // zip's own streamed and forced ZIP64 archives are read by all; each program checks every checksum.
        EXPECT_EQ(run_program({"unzip", "-tqq", path()}).code, 0);
        EXPECT_EQ(run_program({"bsdtar", "-tf", path()}).code, 0);
        const auto python =
            run_program({"python3", "-c", "import zipfile,sys; sys.exit(zipfile.ZipFile(sys.argv[1]).testzip() is not None)", path()});
        EXPECT_EQ(python.code, 0) << python.output;
    }
};
INSTANTIATE_TEST_SUITE_P(By, Archive, testing::Values("zip", "zip_stored", "zip_stream", "bsdtar", "python", "python_zip64"),
                         [](const auto& param) { return param.param; });

}  // namespace

TEST_P(Archive, IsReadRight) {
    const auto zip = open();
    ASSERT_TRUE(zip);
    EXPECT_EQ(*zip->read(entry(*zip, "rides/horse.dds"), ReadLimits{}), texture);
    EXPECT_EQ(*zip->read(entry(*zip, "text.txt"), ReadLimits{}), text);
    EXPECT_EQ(*zip->read(entry(*zip, "müsik.bin"), ReadLimits{}), odd);
}

TEST_P(Archive, StaysSoundForOthersAfterReplacingAndRestoring) {
    others_are_content();
    const auto hash = hash_of_file(path());
    PosixFiles files;
    Vault vault(folder / "vault", files);
    auto same_size = texture;
    same_size[500] ^= std::byte{9};
    int step = 0;
    for (const auto& [name, content] :
         {std::pair<std::string, Bytes>{"rides/horse.dds", same_size}, {"text.txt", random_bytes(9000, 1)}, {"müsik.bin", bytes_of("")}}) {
        const auto zip = open();
        const auto plan = zip->plan(std::vector<Replacement>{{entry(*zip, name), content}}, ReadLimits{});
        ASSERT_TRUE(plan) << plan.error().message();
        ASSERT_TRUE(vault.deliver(*plan, {"t", path(), {name}}, ++step));
        const auto after = open();
        EXPECT_EQ(*after->read(entry(*after, name), ReadLimits{}), content);
        others_are_content();
    }
    // Other programs see the new content too.
    const auto zip = open();
    const auto stored_as = zip->entries()[entry(*zip, "text.txt")].path;
    ASSERT_EQ(run_program({"unzip", "-qq", "-o", path(), stored_as, "-d", (folder / "out").string()}).code, 0);
    EXPECT_EQ(get_file(folder / "out" / "text.txt"), random_bytes(9000, 1));
    ASSERT_EQ(*vault.restore(path()), 3u);
    EXPECT_EQ(hash_of_file(path()), hash);
}
