#pragma once
// Records of one drawn frame: what was drawn, with which textures, on which mesh, and which pixels show it. The format (JSON Lines) is
// described in docs/frame-record.md.
#include <filesystem>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "base/progress.h"
#include "base/result.h"
#include "catalog/alike.h"
#include "pixel/image.h"

namespace skivet {

struct RecordedTexture {
    std::uint64_t number = 0;    ///< as the record has it
    std::filesystem::path file;  ///< whole; empty where the record has no picture of it
    std::uint32_t width = 0, height = 0;
    std::size_t things = 0;  ///< how many things it is bound to
};

struct RecordedDraw {
    std::uint32_t number = 0;
    std::filesystem::path mesh;         ///< a table of vertices; whole; empty: none
    std::vector<std::size_t> textures;  ///< indices into FrameRecord::textures
    std::uint64_t triangles = 0;        ///< 0: not said
};

/// Draws of one mesh with the same textures: a fence of fifty pales is one thing.
struct RecordedThing {
    std::vector<std::size_t> draws;     ///< indices into FrameRecord::draws, in the order in which they were drawn
    std::vector<std::size_t> textures;  ///< of a thing's textures those first that fewest others have; equals as they are bound
};

struct FrameRecord {
    std::filesystem::path folder;
    std::uint32_t width = 0, height = 0;      ///< of the screen
    std::filesystem::path picture, draw_map;  ///< whole
    std::vector<RecordedTexture> textures;
    std::vector<RecordedDraw> draws;
    std::vector<RecordedThing> things;  ///< in the order of their first draws
    std::vector<std::string> notes;     ///< what is not as it should be, in words
};

/// Of its folder or its frame.jsonl. Lines that are none of the format's are left out and said in `notes`. Errors: `missing`, `damaged` for
/// what is no record, `limit`.
[[nodiscard]] Result<FrameRecord> read_frame_record(const std::filesystem::path& place);
/// From the text alone; files are named relative to `folder`, and none lies outside of it.
[[nodiscard]] Result<FrameRecord> frame_record_of(std::string_view text, const std::filesystem::path& folder);

/// Which thing each pixel shows: an index into `things`, or -1. Read from a picture whose red, green and blue are a draw's number in three
/// bytes, red the lowest, and 0 for none; of another size than the frame it is stretched.
struct ThingMap {
    std::uint32_t width = 0, height = 0;
    std::vector<std::int32_t> things;
    [[nodiscard]] std::int32_t at(std::uint32_t x, std::uint32_t y) const {
        return x < width && y < height ? things[std::size_t{y} * width + x] : -1;
    }
};
[[nodiscard]] ThingMap thing_map(const FrameRecord& record, const Image& draws);

/// Finds of a captured texture, the likeliest first. It is a whole texture, upright and not mirrored, and mostly one of the same size: of
/// finds that are nearly as alike those count less that are not. `size_of`: width and height of the texture a find is.
[[nodiscard]] std::vector<PictureHit> ranked_as_captured(
    std::vector<PictureHit> hits, std::uint32_t width, std::uint32_t height,
    const std::function<std::pair<std::uint32_t, std::uint32_t>(std::size_t)>& size_of);

/// The newest record in folders of records; nothing where there is none. Looked for as FOLDER/*/frame.jsonl.
[[nodiscard]] std::optional<std::filesystem::path> newest_frame_record(const std::vector<std::filesystem::path>& folders);

}  // namespace skivet
