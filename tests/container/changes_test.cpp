// Entries that come, go and get other names, in every kind of container that can: what we list afterwards, and what Python's zipfile and
// tarfile, bsdtar, GNU cpio and unzip say that is there.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "base/hash.h"
#include "base/pack.h"
#include "container/address.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using Contents = std::map<std::string, Bytes>;
using What = AddressedChange::What;

/// Runs Python with arguments behind the script.
std::string python(const std::string& script, std::vector<std::string> arguments) {
    std::vector<std::string> command = {"python3", "-c", script};
    command.insert(command.end(), arguments.begin(), arguments.end());
    const auto ran = run_program(command);
    EXPECT_EQ(ran.code, 0) << ran.output;
    return ran.output;
}

/// What an archive is made of, by the program that makes it.
struct Kind {
    std::string name;
    std::string file;    ///< with the ending Python goes by
    std::string script;  ///< makes argv[1] of the files below argv[2]
};
std::string by_cpio(const std::string& form) {
    return "import sys,os,subprocess\n"
           "ns=sorted(os.path.relpath(os.path.join(d,f),sys.argv[2]) for d,_,fs in os.walk(sys.argv[2]) for f in fs)\n"
           "subprocess.run(['cpio','-o','--quiet','-H','" +
           form + "','-O',sys.argv[1]],cwd=sys.argv[2],input='\\n'.join(ns+['.'])+'\\n',text=True,check=True)\n";
}
const Kind kinds[] = {
    {"zip", "a.zip",
     "import sys,os,zipfile\n"
     "z=zipfile.ZipFile(sys.argv[1],'w',zipfile.ZIP_DEFLATED)\n"
     "for d,_,fs in sorted(os.walk(sys.argv[2])):\n"
     "  for f in sorted(fs):\n"
     "    p=os.path.join(d,f); z.write(p,os.path.relpath(p,sys.argv[2]),zipfile.ZIP_STORED if f.endswith('raw') else None)\n"
     "z.close()\n"},
    {"zip_of_streams", "a.zip",  // sizes behind the data
     "import sys,os,zipfile\n"
     "class Out:\n"
     "  def __init__(s,f): s.f=f\n"
     "  def write(s,b): return s.f.write(b)\n"
     "  def flush(s): s.f.flush()\n"
     "f=open(sys.argv[1],'wb')\n"
     "z=zipfile.ZipFile(Out(f),'w',zipfile.ZIP_DEFLATED)\n"
     "for d,_,fs in sorted(os.walk(sys.argv[2])):\n"
     "  for n in sorted(fs):\n"
     "    p=os.path.join(d,n); z.write(p,os.path.relpath(p,sys.argv[2]))\n"
     "z.close()\n"},
    {"ustar", "a.tar",
     "import sys,tarfile\nt=tarfile.open(sys.argv[1],'w',format=tarfile.USTAR_FORMAT)\nt.add(sys.argv[2],'',filter=lambda i:i if "
     "i.isfile() or i.isdir() else None)\n"},
    {"gnu_tar", "a.tar", "import sys,tarfile\nt=tarfile.open(sys.argv[1],'w',format=tarfile.GNU_FORMAT)\nt.add(sys.argv[2],'')\n"},
    {"pax", "a.tar",
     "import "
     "sys,tarfile\nt=tarfile.open(sys.argv[1],'w',format=tarfile.PAX_FORMAT,pax_headers={'comment':'kept'})\nt.add(sys.argv[2],'')\n"},
    {"cpio_newc", "a.cpio", by_cpio("newc")},
    {"cpio_crc", "a.cpio", by_cpio("crc")},
    {"cpio_odc", "a.cpio", by_cpio("odc")},
    {"cpio_bin", "a.cpio", by_cpio("bin")},
    {"tar_gz", "a.tar.gz", "import sys,tarfile\nt=tarfile.open(sys.argv[1],'w:gz')\nt.add(sys.argv[2],'')\n"},
};

/// Path and SHA-256 of every file in it, as Python reads it.
std::map<std::string, std::string> as_python_reads(const std::filesystem::path& file) {
    const auto out = python(
        "import sys,os,json,hashlib,zipfile,tarfile,tempfile,subprocess\n"
        "r={}\n"
        "h=lambda b:hashlib.sha256(b).hexdigest()\n"
        "if zipfile.is_zipfile(sys.argv[1]):\n"
        "  z=zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None\n"
        "  ns=[n for n in z.namelist() if not n.endswith('/')]\n"
        "  assert len(set(ns))==len(ns)\n"
        "  r={n:h(z.read(n)) for n in ns}\n"
        "elif open(sys.argv[1],'rb').read(2) in (b'07',b'\\xc7\\x71',b'\\x71\\xc7'):\n"  // GNU cpio has its say
        "  d=tempfile.mkdtemp()\n"
        "  o=subprocess.run(['cpio','-id','--quiet','-I',sys.argv[1]],cwd=d,capture_output=True,text=True,check=True).stderr\n"
        "  assert not o, o\n"
        "  for p,_,fs in os.walk(d):\n"
        "    for f in fs: r[os.path.relpath(os.path.join(p,f),d)]=h(open(os.path.join(p,f),'rb').read())\n"
        "  subprocess.run(['rm','-r',d])\n"
        "else:\n"
        "  t=tarfile.open(sys.argv[1])\n"
        "  for m in t.getmembers():\n"
        "    if m.isfile(): assert m.name not in r; r[m.name]=h(t.extractfile(m).read())\n"
        "print(json.dumps(r))\n",
        {file.string()});
    return nlohmann::json::parse(out).get<std::map<std::string, std::string>>();
}
std::map<std::string, std::string> hashed(const Contents& contents) {
    std::map<std::string, std::string> out;
    for (const auto& [path, bytes] : contents) out[path] = to_hex(sha256(bytes));
    return out;
}

/// A file as it is after a plan for it.
Bytes after(const WritePlan& plan, const std::filesystem::path& file) {
    EXPECT_EQ(plan.files.size(), 1u);
    return *planned_bytes(plan.files.front(), get_file(file));
}

struct Changing : testing::TestWithParam<Kind> {
    TempFolder folder;
    ReadContext context;
    std::filesystem::path file = folder / GetParam().file;
    Contents contents;

    void SetUp() override {
        contents["a/horse.dds"] = make_dds(Format::BC1, 32, 32);
        contents["a/cow.raw"] = random_bytes(900, 1);
        contents["b/long.txt"] = Bytes(3000, std::byte{'x'});
        contents["empty"] = {};
        for (const auto& [path, bytes] : contents) put_file(folder / "in" / path, bytes);
        python(GetParam().script, {file.string(), (folder / "in").string()});
        ASSERT_EQ(hashed(read(*open())), hashed(contents));
    }
    std::shared_ptr<const Container> open() const {
        auto out = open_source(context, file);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return *out;
    }
    Contents read(const Container& container) const {
        Contents out;
        for (std::size_t i = 0; i < container.entries().size(); ++i) {
            auto bytes = container.read(i, context.limits);
            EXPECT_TRUE(bytes) << (bytes ? "" : bytes.error().message());
            out[container.entries()[i].path] = bytes ? std::move(*bytes) : Bytes();
        }
        EXPECT_EQ(out.size(), container.entries().size());
        return out;
    }
    /// Plans, writes and compares with `contents`, by ourselves and by others.
    void change(std::vector<AddressedChange> changes) {
        const auto wanted = changes;
        const auto plan = plan_changes(context, *open(), std::move(changes));
        ASSERT_TRUE(plan) << plan.error().message();
        put_file(file, after(*plan, file));
        const auto now = open();
        EXPECT_TRUE(now->problems().empty());
        EXPECT_EQ(hashed(read(*now)), hashed(contents));
        EXPECT_EQ(as_python_reads(file), hashed(contents));
        const auto checked = check_changes(context, *now, wanted);
        EXPECT_TRUE(checked) << checked.error().message();
    }
};
INSTANTIATE_TEST_SUITE_P(All, Changing, testing::ValuesIn(kinds), [](const auto& p) { return p.param.name; });

}  // namespace

TEST_P(Changing, AnEntryIsAddedLikeAnother) {
    const auto fresh = make_dds(Format::BC1, 32, 32, 0, 9);
    contents["a/horse_blue.dds"] = fresh;
    change({{What::add, {"a/horse_blue.dds"}, fresh, "a/horse.dds"}});
    contents["new/naïve.txt"] = random_bytes(70, 2);
    contents["plain"] = {};
    change({{What::add, {"new/naïve.txt"}, contents["new/naïve.txt"]}, {What::add, {"plain"}, {}, "empty"}});
}

TEST_P(Changing, AnEntryGetsAnotherName) {
    contents["a/horse_old.dds"] = contents["a/horse.dds"];
    contents.erase("a/horse.dds");
    change({{What::rename, {"a/horse.dds"}, {}, "a/horse_old.dds"}});
    // As long as before, and in the place of one that goes.
    contents["a/cow.raw"] = contents["b/long.txt"];
    contents.erase("b/long.txt");
    change({{What::rename, {"b/long.txt"}, {}, "a/cow.raw"}, {What::remove, {"a/cow.raw"}}});
    // Longer than a plain header has room for, with and without folders to cut at.
    for (const auto& path : {std::string(60, 'd') + '/' + std::string(80, 'n') + ".raw", std::string(140, 'x') + ".raw",
                             std::string(200, 'p') + '/' + std::string(90, 'q') + ".raw", std::string("z.raw")}) {
        const auto old = contents.contains("a/cow.raw") ? "a/cow.raw" : contents.rbegin()->first;
        contents[path] = contents[old];
        contents.erase(old);
        change({{What::rename, {old}, {}, path}});
    }
}

TEST_P(Changing, AnEntryIsTakenOut) {
    contents.erase("b/long.txt");
    change({{What::remove, {"b/long.txt"}}});
    contents.erase("a/cow.raw");
    contents.erase("empty");
    change({{What::remove, {"a/cow.raw"}}, {What::remove, {"empty"}}});
    const auto fresh = random_bytes(400, 8);
    contents.erase("a/horse.dds");
    contents["b"] = fresh;
    change({{What::remove, {"a/horse.dds"}}, {What::add, {"b"}, fresh}});
}

TEST_P(Changing, AllAtOnce) {
    const auto painted = random_bytes(777, 3), fresh = random_bytes(1200, 4);
    contents["c/cow.raw"] = painted;
    contents.erase("a/cow.raw");
    contents["a/horse.dds"] = make_dds(Format::BC1, 32, 32, 0, 5);
    contents["fresh"] = fresh;
    contents.erase("empty");
    change({{What::replace, {"a/cow.raw"}, painted},
            {What::rename, {"a/cow.raw"}, {}, "c/cow.raw"},
            {What::replace, {"a/horse.dds"}, contents["a/horse.dds"]},
            {What::add, {"fresh"}, fresh, "b/long.txt"},
            {What::remove, {"empty"}}});
}

TEST_P(Changing, TwoEntriesChangeTheirNames) {
    std::swap(contents["a/cow.raw"], contents["a/horse.dds"]);
    const auto container = open();
    const auto plan = container->plan_changes(
        {{}, {}, {{*container->find("a/cow.raw"), "a/horse.dds"}, {*container->find("a/horse.dds"), "a/cow.raw"}}, {}}, context.limits);
    ASSERT_TRUE(plan) << plan.error().message();
    put_file(file, after(*plan, file));
    EXPECT_EQ(as_python_reads(file), hashed(contents));
}

TEST_P(Changing, RandomChangesOneAfterTheOther) {
    std::mt19937 random(7);
    const auto any = [&] { return std::next(contents.begin(), static_cast<std::ptrdiff_t>(random() % contents.size()))->first; };
    for (unsigned round = 0; round < 24; ++round) {
        const auto path = std::string(1 + random() % 120, static_cast<char>('a' + random() % 26)) + "/" + std::to_string(round);
        const auto bytes = random_bytes(random() % 3000, round);
        switch (contents.size() < 2 ? 0 : random() % 4) {
            case 0: {
                const auto like = contents.empty() ? std::string() : any();
                contents[path] = bytes;
                change({{What::add, {path}, bytes, random() % 2 ? like : std::string()}});
                break;
            }
            case 1: {
                const auto old = any();
                contents[path] = contents[old];
                contents.erase(old);
                change({{What::rename, {old}, {}, path}});
                break;
            }
            case 2: {
                const auto old = any();
                contents[old] = bytes;
                change({{What::replace, {old}, bytes}});
                break;
            }
            default: {
                const auto old = any();
                contents.erase(old);
                change({{What::remove, {old}}});
            }
        }
        if (HasFatalFailure()) return;
    }
    // What was taken out is given back where the kind can.
    const auto plan = open()->plan_compact(context.limits);
    ASSERT_TRUE(plan);
    if (plan->empty()) return;
    put_file(file, after(*plan, file));
    EXPECT_EQ(as_python_reads(file), hashed(contents));
    EXPECT_EQ(open()->dead_bytes(), 0u);
}

TEST_P(Changing, TheLastEntryGoesAndAnotherComes) {
    const auto all = contents;
    std::vector<AddressedChange> changes;
    for (const auto& [path, bytes] : all) changes.push_back({What::remove, {path}});
    const auto plan = plan_changes(context, *open(), changes);
    ASSERT_TRUE(plan);
    put_file(file, after(*plan, file));
    if (GetParam().name.find("tar") != std::string::npos || GetParam().name == "pax") return;  // a tar without a member is no tar any more
    contents.clear();
    EXPECT_TRUE(open()->entries().empty());
    contents["alone.txt"] = random_bytes(50, 1);
    change({{What::add, {"alone.txt"}, contents["alone.txt"]}});
}

TEST_P(Changing, WhatCannotBeIsRefused) {
    const auto before = get_file(file);
    const auto refused = [&](std::vector<AddressedChange> changes, ErrorCode code, const std::string& why) {
        const auto plan = plan_changes(context, *open(), std::move(changes));
        ASSERT_FALSE(plan) << why;
        EXPECT_EQ(plan.error().code, code) << plan.error().message();
        EXPECT_NE(plan.error().message().find(why), std::string::npos) << plan.error().message();
    };
    for (const auto* path : {"../out.txt", "/etc/x", "a//b", "a/../b", "", "a/", "C:\\x", "a\nb"})
        refused({{What::add, {path}, {}}}, ErrorCode::usage, "is no path inside an archive");
    refused({{What::add, {"a/cow.raw"}, {}}}, ErrorCode::usage, "there is an entry \"a/cow.raw\" already");
    refused({{What::add, {"n"}, {}}, {What::add, {"n"}, {}}}, ErrorCode::usage, "already");
    refused({{What::rename, {"a/cow.raw"}, {}, "a/horse.dds"}}, ErrorCode::usage, "already");
    refused({{What::rename, {"none"}, {}, "x"}}, ErrorCode::missing, "there is no entry \"none\"");
    refused({{What::remove, {"none"}}}, ErrorCode::missing, "there is no entry");
    refused({{What::add, {"n"}, {}, "none"}}, ErrorCode::missing, "there is no entry \"none\"");
    refused({{What::remove, {"a/cow.raw"}}, {What::remove, {"a/cow.raw"}}}, ErrorCode::usage, "changed in two ways");
    refused({{What::remove, {"a/cow.raw"}}, {What::replace, {"a/cow.raw"}, {}}}, ErrorCode::usage, "changed in two ways");
    refused({{What::remove, {"a/cow.raw"}}, {What::rename, {"a/cow.raw"}, {}, "x"}}, ErrorCode::usage, "changed in two ways");
    EXPECT_EQ(get_file(file), before);
}

TEST(Changes, AZipKeepsWhatItsEntriesSay) {
    // Attributes, times, extra fields and the comment of the one it is like; the others' bytes stay where they are.
    const TempFolder folder;
    const auto file = folder / "a.zip";
    python(
        "import sys,zipfile\n"
        "z=zipfile.ZipFile(sys.argv[1],'w')\n"
        "i=zipfile.ZipInfo('one.dds',(2001,2,3,4,5,6)); i.external_attr=0o100640<<16; i.compress_type=zipfile.ZIP_DEFLATED\n"
        "i.extra=b'\\xfe\\xca\\x04\\x00abcd'; i.comment=b'by hand'\n"
        "z.writestr(i,b'1'*300); z.writestr(zipfile.ZipInfo('two'),b'2'*9); z.comment=b'the end'; z.close()\n",
        {file.string()});
    const auto before = get_file(file);
    const ReadContext context;
    const auto plan =
        plan_changes(context, **open_source(context, file),
                     {{What::add, {"näw.dds"}, Bytes(200, std::byte{'3'}), "one.dds"}, {What::rename, {"one.dds"}, {}, "uno"}});
    ASSERT_TRUE(plan) << plan.error().message();
    put_file(file, after(*plan, file));
    const auto told = python(
        "import sys,zipfile\n"
        "z=zipfile.ZipFile(sys.argv[1])\n"
        "for i in z.infolist(): print(i.filename,i.date_time,oct(i.external_attr>>16),i.compress_type,i.extra,i.comment,len(z.read(i)))\n"
        "print(z.comment)\n",
        {file.string()});
    EXPECT_EQ(told,
              "uno (2001, 2, 3, 4, 5, 6) 0o100640 8 b'\\xfe\\xca\\x04\\x00abcd' b'by hand' 300\n"
              "two (1980, 1, 1, 0, 0, 0) 0o600 0 b'' b'' 9\n"
              "näw.dds (2001, 2, 3, 4, 5, 6) 0o100640 8 b'\\xfe\\xca\\x04\\x00abcd' b'by hand' 200\n"
              "b'the end'\n");
    const auto now = get_file(file);
    const auto directory = as_text(before).find("PK\1\2");
    EXPECT_TRUE(std::equal(before.begin(), before.begin() + static_cast<std::ptrdiff_t>(directory), now.begin()));
    EXPECT_EQ(run_program({"unzip", "-tq", file.string()}).code, 0);
}

TEST(Changes, MoreThan65535EntriesNeedTheWideCount) {
    const TempFolder folder;
    const auto file = folder / "a.zip";
    python("import sys,zipfile\nz=zipfile.ZipFile(sys.argv[1],'w')\nfor i in range(65534): z.writestr(str(i),b'')\nz.close()\n",
           {file.string()});
    const ReadContext context;
    for (const auto* name : {"a", "b", "c"}) {
        const auto plan = plan_changes(context, **open_source(context, file), {{What::add, {name}, random_bytes(10, 1)}});
        ASSERT_TRUE(plan);
        put_file(file, after(*plan, file));
        EXPECT_EQ(python("import sys,zipfile\nz=zipfile.ZipFile(sys.argv[1])\nprint(len(z.namelist()),len(z.read(sys.argv[2])))\n",
                         {file.string(), name}),
                  std::to_string(65534 + (name[0] - 'a') + 1) + " 10\n");
    }
    std::vector<AddressedChange> changes;
    for (int i = 0; i < 100; ++i) changes.push_back({What::remove, {std::to_string(i)}});
    const auto plan = plan_changes(context, **open_source(context, file), changes);
    ASSERT_TRUE(plan);
    put_file(file, after(*plan, file));
    EXPECT_EQ(python("import sys,zipfile\nprint(len(zipfile.ZipFile(sys.argv[1]).namelist()))\n", {file.string()}), "65437\n");
    EXPECT_EQ((*open_source(context, file))->entries().size(), 65437u);
}

TEST(Changes, AnEncryptedEntryIsMovedAndVariedWithItsKey) {
    // Traditional encryption, made by zip; the data goes on being what it is.
    const TempFolder folder;
    put_file(folder / "one.txt", random_bytes(500, 1));
    ASSERT_EQ(run_program({"zip", "-q", "-P", "lantern", "a.zip", "one.txt"}, folder.path().string()).code, 0);
    ReadContext context;
    auto ring = std::make_shared<KeyRing>();
    ring->add(*parse_key("a=text:lantern"));
    context.keys = ring;
    const auto file = folder / "a.zip";
    const auto plan =
        plan_changes(context, **open_source(context, file),
                     {{What::rename, {"one.txt"}, {}, "in/another.txt"}, {What::add, {"two.txt"}, random_bytes(300, 2), "one.txt"}});
    ASSERT_TRUE(plan) << plan.error().message();
    put_file(file, after(*plan, file));
    EXPECT_EQ(python("import sys,zipfile\nz=zipfile.ZipFile(sys.argv[1]); z.setpassword(b'lantern')\n"
                     "print([(n,len(z.read(n)),z.getinfo(n).flag_bits&1) for n in z.namelist()])\n",
                     {file.string()}),
              "[('in/another.txt', 500, 1), ('two.txt', 300, 1)]\n");
}

TEST(Changes, ATarKeepsItsHardLinksTargets) {
    const TempFolder folder;
    put_file(folder / "in/one", random_bytes(500, 1));
    std::filesystem::create_hard_link(folder / "in/one", folder / "in/two");
    ASSERT_EQ(run_program({"tar", "-cf", "../a.tar", "one", "two"}, (folder / "in").string()).code, 0);
    const ReadContext context;
    const auto tar = *open_source(context, folder / "a.tar");
    for (const auto& change : {AddressedChange{What::remove, {"one"}}, AddressedChange{What::rename, {"one"}, {}, "three"}}) {
        const auto plan = plan_changes(context, *tar, {change});
        ASSERT_FALSE(plan);
        EXPECT_NE(plan.error().message().find("hard link"), std::string::npos) << plan.error().message();
    }
}

TEST(Changes, InAnArchiveInsideAnArchiveInAFolder) {
    const TempFolder folder;
    const auto inner = make_zip({{"x.txt", random_bytes(40, 1)}, {"y.txt", random_bytes(50, 2)}});
    put_file(folder / "game/deep.zip", make_zip({{"in.zip", inner}, {"z.txt", random_bytes(9, 3)}}));
    put_file(folder / "game/loose.txt", random_bytes(60, 4));
    const ReadContext context;
    const auto source = *open_source(context, folder / "game");
    const std::vector<AddressedChange> changes = {
        {What::add, {"deep.zip", "in.zip", "w.txt"}, random_bytes(70, 5), "y.txt"},
        {What::remove, {"deep.zip", "in.zip", "x.txt"}},
        {What::rename, {"deep.zip", "z.txt"}, {}, "a/z.txt"},
        {What::rename, {"loose.txt"}, {}, "sub/loose.txt"},
    };
    const auto plan = plan_changes(context, *source, changes);
    ASSERT_TRUE(plan) << plan.error().message();
    ASSERT_EQ(plan->files.size(), 3u) << "the archive, a file that comes and one that goes";
    EXPECT_EQ(plan->way(), Way::remove);
    for (const auto& file : plan->files) {
        if (file.way == Way::remove) std::filesystem::remove(file.file);
        else put_file(file.file, *planned_bytes(file, file.way == Way::create ? Bytes{} : get_file(file.file)));
    }
    const auto checked = check_changes(context, **open_source(context, folder / "game"), changes);
    EXPECT_TRUE(checked) << checked.error().message();
    EXPECT_FALSE(check_changes(context, *source, changes)) << "the folder as it was listed before";
    EXPECT_EQ(get_file(folder / "game/sub/loose.txt"), random_bytes(60, 4));
    const auto both = plan_changes(context, **open_source(context, folder / "game"),
                                   {{What::remove, {"deep.zip"}}, {What::remove, {"deep.zip", "in.zip"}}});
    ASSERT_FALSE(both);
    EXPECT_NE(both.error().message().find("as a whole and inside"), std::string::npos);
}

TEST(Changes, OneOfSeveralEntriesOfANameStays) {
    const TempFolder folder;
    const auto file = folder / "a.zip";
    put_file(file, make_zip({{"a.txt", random_bytes(20, 1)}, {"a.txt", random_bytes(20, 2)}, {"b.txt", random_bytes(20, 3)}}));
    const ReadContext context;
    const auto zip = *open_source(context, file);
    for (const auto* path : {"a.txt", "a#2.txt"})
        for (const auto& change : {AddressedChange{What::remove, {path}}, AddressedChange{What::rename, {path}, {}, "c.txt"}}) {
            const auto plan = plan_changes(context, *zip, {change});
            ASSERT_FALSE(plan) << path;
            EXPECT_NE(plan.error().message().find("several entries have the name"), std::string::npos) << plan.error().message();
        }
    EXPECT_TRUE(plan_changes(context, *zip, {{What::remove, {"b.txt"}}}));
}

TEST(Changes, ATarIsNotEmptied) {
    const TempFolder folder;
    put_file(folder / "in/one", random_bytes(500, 1));
    ASSERT_EQ(run_program({"tar", "-cf", "../a.tar", "one"}, (folder / "in").string()).code, 0);
    const ReadContext context;
    const auto tar = *open_source(context, folder / "a.tar");
    const auto plan = plan_changes(context, *tar, {{What::remove, {"one"}}});
    ASSERT_FALSE(plan);
    EXPECT_NE(plan.error().message().find("nothing in it"), std::string::npos) << plan.error().message();
    EXPECT_TRUE(plan_changes(context, *tar, {{What::remove, {"one"}}, {What::add, {"two"}, {}}}));
}

TEST(Changes, OthersSayWhyNot) {
    const TempFolder folder;
    put_file(folder / "in/a.txt", random_bytes(90, 1));
    const ReadContext context;
    const auto file = folder / "a.7z";
    ASSERT_EQ(run_program({"bsdtar", "-cf", file.string(), "--format", "7zip", "a.txt"}, (folder / "in").string()).code, 0);
    const auto container = *open_source(context, file);
    const auto plan = plan_changes(context, *container, {{What::add, {"b.txt"}, {}}});
    ASSERT_FALSE(plan);
    EXPECT_EQ(plan.error().code, ErrorCode::unsupported);
    EXPECT_FALSE(container->fixed_entries().empty());
    EXPECT_NE(plan.error().message().find(container->fixed_entries()), std::string::npos);
    EXPECT_TRUE(container->plan_changes({{{0, random_bytes(90, 1)}}, {}, {}, {}}, context.limits)) << "replacing goes on as it did";
    put_file(folder / "one.gz", *pack(Packing::gzip, random_bytes(90, 1)));
    const auto packed = plan_changes(context, **open_source(context, folder / "one.gz"), {{What::remove, {"one"}}});
    ASSERT_FALSE(packed);
    EXPECT_NE(packed.error().message().find("one file"), std::string::npos) << packed.error().message();
}

TEST(Changes, NothingInAFolderIsWrittenOver) {
    const TempFolder folder;
    put_file(folder / "game/a.txt", random_bytes(9, 1));
    std::filesystem::create_directories(folder / "game/sub");
    std::filesystem::create_directory_symlink(folder.path(), folder / "game/out");
    const ReadContext context;
    const auto source = *open_source(context, folder / "game");
    for (const auto* path : {"sub", "out/b.txt"}) {
        const auto plan = plan_changes(context, *source, {{What::add, {path}, {}}});
        ASSERT_FALSE(plan) << path;
        EXPECT_EQ(plan.error().code, ErrorCode::usage);
    }
}
