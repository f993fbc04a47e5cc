// What paint programs do to files: the ways in which they save are common practice, without a source.
#include "workflow/saves.h"

#include <gtest/gtest.h>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "bench/open_raster.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/exr.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Saves : testing::Test {
    TempFolder folder;
    ReadContext context;
    Project project;
    SeenFiles seen;
    PieceId id = 0;

    void SetUp() override {
        put_file(folder / "game.zip",
                 make_zip({{"a/horse.dds", make_dds(Format::BC1, 32, 32)}, {"a/cow.dds", make_dds(Format::BC3, 16, 16)}}));
        project = *open_project(folder / "project");
        id = take("a/horse.dds");
    }
    PieceId take(const std::string& path) {
        return keep_taken(project, {*take_piece(context, project, {folder / "game.zip", {path}}, ExportAs::png, 1)}).front();
    }
    const Piece& piece() { return *project.piece(id); }
    std::filesystem::path file() { return project.work() / piece().file; }
    BenchLook look() {
        auto out = look_at_files(project, seen, ++now);
        EXPECT_TRUE(out.errors.empty());
        note_look(project, out);
        return out;
    }
    /// The file's time, moved into the past: as if it had been written long ago.
    static void age(const std::filesystem::path& path, int seconds) {
        struct stat s {};
        ASSERT_EQ(::stat(path.c_str(), &s), 0);
        timespec times[2] = {s.st_atim, s.st_mtim};
        times[1].tv_sec -= seconds;
        ASSERT_EQ(::utimensat(AT_FDCWD, path.c_str(), times, 0), 0);
    }
    std::int64_t now = 10;
};

Bytes painted(unsigned seed) { return *write_png(smooth_picture(32, 32, seed)); }

/// An OpenRaster file, written by Python's zipfile, as a paint program lays it out.
Bytes open_raster(const Image& merged, bool with_merged = true) {
    const TempFolder folder;
    put_file(folder / "m.png", *write_png(merged));
    const std::string script =
        "import sys,zipfile\n"
        "z=zipfile.ZipFile(sys.argv[2],'w',zipfile.ZIP_DEFLATED)\n"
        "z.writestr('mimetype','image/openraster',zipfile.ZIP_STORED)\n"
        "z.writestr('stack.xml','<image w=\"32\" h=\"32\"><stack><layer src=\"data/0.png\"/></stack></image>')\n"
        "z.write(sys.argv[1],'data/0.png')\n" +
        std::string(with_merged ? "z.write(sys.argv[1],'mergedimage.png')\n" : "") + "z.close()\n";
    const auto ran = run_program({"python3", "-c", script, (folder / "m.png").string(), (folder / "m.ora").string()});
    EXPECT_EQ(ran.code, 0) << ran.output;
    return get_file(folder / "m.ora");
}

}  // namespace

TEST_F(Saves, InPlace) {
    put_file(file(), painted(2));
    const auto seen_now = look();
    ASSERT_EQ(seen_now.saved.size(), 1u);
    EXPECT_EQ(piece().state, PieceState::changed);
    EXPECT_TRUE(look().saved.empty()) << "once";
}

TEST_F(Saves, UnderAnotherNameAndRenamed) {
    put_file(file().string() + ".tmp", painted(2));
    EXPECT_TRUE(look().saved.empty());
    std::filesystem::rename(file().string() + ".tmp", file());
    EXPECT_EQ(look().saved.size(), 1u);
}

TEST_F(Saves, WithABackupOfTheOldOne) {
    std::filesystem::rename(file(), file().string() + "~");
    auto looked = look();
    EXPECT_TRUE(looked.saved.empty()) << "gone for a moment";
    EXPECT_EQ(piece().state, PieceState::out);
    put_file(file(), painted(2));
    put_file(file().parent_path() / ".horse.dds.png.swp", painted(3));
    put_file(file().parent_path() / "horse.dds.png.bak", painted(3));
    put_file(file().parent_path() / "#horse.dds.png#", painted(3));
    looked = look();
    EXPECT_EQ(looked.saved.size(), 1u);
    EXPECT_TRUE(looked.others.empty()) << "backups are nobody's edit";
}

TEST_F(Saves, RemovedAndMadeAnew) {
    std::filesystem::remove(file());
    EXPECT_TRUE(look().saved.empty());
    put_file(file(), painted(2));
    EXPECT_EQ(look().saved.size(), 1u);
}

TEST_F(Saves, InPartsAHalfIsWaitedFor) {
    const auto whole = painted(2);
    put_file(file(), {});
    EXPECT_TRUE(look().unfinished) << "emptied first";
    put_file(file(), Bytes(whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(whole.size() / 2)));
    auto looked = look();
    EXPECT_TRUE(looked.saved.empty());
    EXPECT_TRUE(looked.unfinished);
    EXPECT_EQ(piece().state, PieceState::out);
    EXPECT_TRUE(project.versions.empty());
    put_file(file(), whole);
    looked = look();
    EXPECT_EQ(looked.saved.size(), 1u);
    EXPECT_FALSE(looked.unfinished);
}

TEST_F(Saves, AHalfThatStaysIsTakenAsItIs) {
    const auto whole = painted(2);
    put_file(file(), Bytes(whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(whole.size() / 2)));
    age(file(), 60);
    EXPECT_EQ(look().saved.size(), 1u);
    const auto fitted = fit_now(context, project, piece());
    EXPECT_FALSE(fitted.fit) << "and the fit list says what is wrong with it";
}

TEST_F(Saves, TwiceWithinTheClocksStep) {
    put_file(file(), painted(2));
    EXPECT_EQ(look().saved.size(), 1u);
    struct stat s {};
    ASSERT_EQ(::stat(file().c_str(), &s), 0);
    // Other content of the same length, written into the file, with the very same time.
    auto bytes = painted(2);
    const auto other = painted(3);
    ASSERT_NE(bytes, other);
    bytes.resize(std::max(bytes.size(), other.size()));
    auto padded = other;
    padded.resize(bytes.size());
    put_file(file(), bytes);
    timespec times[2] = {s.st_atim, s.st_mtim};
    ASSERT_EQ(::utimensat(AT_FDCWD, file().c_str(), times, 0), 0);
    (void)look();
    std::FILE* f = std::fopen(file().c_str(), "r+b");
    ASSERT_TRUE(f);
    std::fwrite(padded.data(), 1, padded.size(), f);
    std::fclose(f);
    ASSERT_EQ(::utimensat(AT_FDCWD, file().c_str(), times, 0), 0);
    EXPECT_EQ(look().saved.size(), 1u) << "a young file is read again";
}

TEST_F(Saves, OldFilesAreNotReadAgain) {
    age(file(), 60);
    (void)look();
    const auto stamp = *stamp_of(file());
    EXPECT_FALSE(seen.may_be_new(file(), stamp));
    put_file(file(), painted(2));
    EXPECT_TRUE(seen.may_be_new(file(), *stamp_of(file())));
}

TEST_F(Saves, InAnotherFormatUnderTheSameName) {
    const auto beside = file().parent_path() / "horse.dds.tif";
    put_file(beside, file_by_imagemagick(smooth_picture(32, 32, 7), {}, "TIFF:.tif"));
    age(file(), 5);
    auto looked = look();
    EXPECT_TRUE(looked.saved.empty()) << "it is offered, not taken";
    ASSERT_EQ(looked.others, (std::vector<OtherSave>{{id, piece().file.parent_path() / "horse.dds.tif"}}));
    ASSERT_TRUE(use_file(project, id, looked.others[0].file, 20));
    EXPECT_EQ(piece().file.extension(), ".tif");
    EXPECT_EQ(piece().state, PieceState::changed);
    EXPECT_EQ(edited_piece(context, project, piece())->image, smooth_picture(32, 32, 7));
    EXPECT_TRUE(look().others.empty()) << "the old one is older";
    EXPECT_TRUE(std::filesystem::exists(project.work() / "game/a/horse.dds.png")) << "and stays";
    // An older one beside it is nothing new; another piece's file is nobody else's.
    const auto others = take("a/cow.dds");
    EXPECT_FALSE(use_file(project, others, piece().file, 21));
}

TEST_F(Saves, AsALayeredFileItsMergedPictureCounts) {
    const auto merged = smooth_picture(32, 32, 9);
    put_file(file().parent_path() / "horse.ora", open_raster(merged));
    age(file(), 5);
    const auto looked = look();
    ASSERT_EQ(looked.others.size(), 1u) << "also where all endings were taken off";
    ASSERT_TRUE(use_file(project, id, looked.others[0].file, 20));
    EXPECT_EQ(edited_piece(context, project, piece())->image, merged);
    const auto none = read_edited(open_raster(merged, false), ReadLimits{});
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message().find("no mergedimage.png"), std::string::npos) << none.error().message();
    // An archive that claims to be one and holds another in place of its picture is not looked into without end.
    const auto nested = make_zip({{"mimetype", bytes_of("image/openraster")}, {"mergedimage.png", open_raster(merged)}});
    EXPECT_FALSE(read_edited(nested, ReadLimits{}));
}

TEST(IsWhole, ForWhatProgramsWrite) {
    const auto picture = smooth_picture(64, 64, 3, true);
    std::map<std::string, Bytes> files = {{"ours.exr", *write_exr(to_float(picture, true), true, false, true)}};
    for (const std::string as :
         {"PNG32:.png", "PNG64:16.png", "JPEG:.jpg", "TIFF:.tif", "TGA:.tga", "BMP3:.bmp", "DDS:.dds", "WEBP:.webp"}) {
        files["x" + as.substr(as.find(':') + 1)] = file_by_imagemagick(picture, {}, as);
    }
    for (const auto& [name, file] : files) {
        EXPECT_TRUE(is_whole(file, name)) << name;
        for (const double part : {0.0, 0.01, 0.5, 0.98}) {
            const Bytes cut(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(static_cast<double>(file.size()) * part));
            EXPECT_FALSE(is_whole(cut, name)) << name << " cut at " << part;
        }
    }
    const auto ora = open_raster(picture);
    EXPECT_TRUE(is_whole(ora, "x.ora"));
    EXPECT_FALSE(is_whole(Bytes(ora.begin(), ora.end() - 40), "x.ora"));
    EXPECT_TRUE(is_whole(bytes_of("something else"), "x.xyz")) << "what we do not know is not waited for";
}

TEST_F(Saves, TheFirstIsToldBeforeItsVersionIsWritten) {
    const auto other = take("a/cow.dds");
    put_file(file(), painted(2));
    put_file(project.work() / project.piece(other)->file, *write_png(smooth_picture(16, 16, 9)));
    int told = 0;
    const auto before = project;
    const auto seen_now = look_at_files(before, seen, 20, {}, [&](const std::filesystem::path& saved, const std::string& hash) {
        ++told;
        EXPECT_FALSE(std::filesystem::exists(project.version_file(hash)));
        EXPECT_EQ(note_save(project, saved, hash, 20), std::vector{id});
        EXPECT_EQ(piece().state, PieceState::changed);
        EXPECT_TRUE(note_save(project, saved, hash, 21).empty()) << "it is known by now";
    });
    EXPECT_EQ(told, 1);
    EXPECT_EQ(seen_now.versions.size(), 2u);
    EXPECT_EQ(note_look(project, seen_now), std::vector{other});
    EXPECT_EQ(versions_of(project, piece()).size(), 1u);
}

TEST_F(Saves, EveryVersionIsKeptAndOneCanGoBack) {
    const auto first = painted(2), second = painted(3);
    put_file(file(), first);
    (void)look();
    put_file(file(), second);
    (void)look();
    put_file(file(), first);  // the same again is no other version
    (void)look();
    const auto versions = versions_of(project, piece());
    ASSERT_EQ(versions.size(), 2u);
    EXPECT_GT(versions[0].at, versions[1].at);
    EXPECT_EQ(get_file(project.version_file(versions[0].hash)), second);
    EXPECT_EQ(bytes_of_versions(project), first.size() + second.size());

    // What was not seen yet is kept before it is written over.
    const auto third = painted(4);
    put_file(file(), third);
    const auto went = go_back(project, piece(), versions[0], 50);
    ASSERT_TRUE(went) << went.error().message();
    ASSERT_EQ(went->kept.size(), 1u);
    const auto third_kept = went->kept.front();
    EXPECT_EQ(get_file(project.version_file(third_kept.hash)), third);
    EXPECT_EQ(get_file(file()), second);
    EXPECT_EQ(went->piece.seen_hash, versions[0].hash);
    *project.piece(id) = went->piece;
    add_versions(project, went->kept);

    ASSERT_TRUE(save_project(project));
    const auto back = open_project(project.folder);
    ASSERT_TRUE(back);
    ASSERT_EQ(back->versions.size(), 3u);
    EXPECT_EQ(back->versions[1].hash, project.versions[1].hash);
    EXPECT_EQ(back->versions[2].size, third.size());

    const auto cleared = cleared_versions(project);
    EXPECT_EQ(cleared.size(), 2u) << "what lies in the work folder stays";
    EXPECT_FALSE(std::filesystem::exists(project.version_file(third_kept.hash)));
    EXPECT_TRUE(std::filesystem::exists(project.version_file(versions[0].hash)));
}

TEST_F(Saves, WorkIsNeverWrittenOver) {
    put_file(file(), painted(2));
    (void)look();
    const auto path = file();
    project.put_away(id);
    id = take("a/horse.dds");
    EXPECT_NE(file(), path) << "the edit of the piece that was put away stays";
    EXPECT_EQ(get_file(path), painted(2));
    const auto exported = file();
    project.put_away(id);
    id = take("a/horse.dds");
    EXPECT_EQ(file(), exported) << "a file that is just what was exported serves again";
    // Taking a texture anew keeps what the file holds.
    put_file(file(), painted(5));
    const auto kept = keep_versions(project, piece(), 60);
    ASSERT_TRUE(kept);
    ASSERT_EQ(kept->size(), 1u);
    EXPECT_EQ(get_file(project.version_file(kept->front().hash)), painted(5));
    EXPECT_TRUE(keep_versions(project, *project.piece(take("a/cow.dds")), 60)->empty()) << "what was exported can be exported again";
}

TEST_F(Saves, PiecesThatShareAFileSeeOneSave) {
    auto follower = *take_follower(context, project, piece(), {{folder / "game.zip", {"a/cow.dds"}}}, 1);
    const auto other = keep_taken(project, {follower}).front();
    put_file(file(), painted(2));
    EXPECT_EQ(look().saved.size(), 2u);
    EXPECT_EQ(project.piece(other)->state, PieceState::changed);
    EXPECT_EQ(project.versions.size(), 1u);
}

TEST_F(Saves, EachPieceHasItsVersionsAlsoWhereTwoAreAlike) {
    const auto other = take("a/cow.dds");
    const auto same = painted(2);
    put_file(file(), same);
    put_file(project.work() / project.piece(other)->file, same);
    (void)look();
    EXPECT_EQ(versions_of(project, piece()).size(), 1u);
    EXPECT_EQ(versions_of(project, *project.piece(other)).size(), 1u);
    EXPECT_EQ(cleared_versions(project).size(), 0u) << "both lie in the work folder";
}

TEST_F(Saves, GoingBackIntoAnotherFileKeepsWhatThatHolds) {
    const auto first = painted(2);
    put_file(file(), first);
    (void)look();
    const auto version = versions_of(project, piece()).front();
    // The edit goes on in a TIFF; meanwhile somebody saves the PNG once more, unseen.
    put_file(file().parent_path() / "horse.dds.tif", file_by_imagemagick(smooth_picture(32, 32, 7), {}, "TIFF:.tif"));
    ASSERT_TRUE(use_file(project, id, piece().file.parent_path() / "horse.dds.tif", 20));
    const auto unseen = painted(8);
    put_file(project.work() / version.file, unseen);
    const auto went = go_back(project, piece(), version, 30);
    ASSERT_TRUE(went) << went.error().message();
    EXPECT_EQ(went->piece.file, version.file);
    EXPECT_EQ(get_file(project.work() / version.file), first);
    ASSERT_EQ(went->kept.size(), 1u) << "the TIFF is a version already";
    EXPECT_EQ(get_file(project.version_file(went->kept[0].hash)), unseen);
}

TEST_F(Saves, ALookThatComesLateChangesNoOtherFilesPiece) {
    put_file(file(), painted(2));
    const auto late = look_at_files(project, seen, 30);
    ASSERT_EQ(late.saved.size(), 1u);
    put_file(file().parent_path() / "horse.dds.tif", file_by_imagemagick(smooth_picture(32, 32, 7), {}, "TIFF:.tif"));
    ASSERT_TRUE(use_file(project, id, piece().file.parent_path() / "horse.dds.tif", 31));
    const auto hash = piece().seen_hash;
    EXPECT_TRUE(note_look(project, late).empty());
    EXPECT_EQ(piece().file.extension(), ".tif");
    EXPECT_EQ(piece().seen_hash, hash);
}
