// touch: touch-ups on textures where they lie, or on pictures of them in a folder.
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <ostream>
#include <set>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/export.h"
#include "bench/touching.h"
#include "cli/json_line.h"
#include "cli/writing.h"
#include "container/texture_files.h"
#include "texture/png.h"

namespace skivet::cli {

namespace fs = std::filesystem;

namespace {

/// The picture of a texture file with the touch-ups made, as PNG.
Result<Bytes> touched(const Context& c, Bytes file, const std::string& name, std::span<const TouchUp> touches) {
    SKIVET_TRY(const auto texture, TextureFile::open(c.context.textures, std::move(file), name, c.context.limits));
    if (texture.layout.damage) return fail(*texture.layout.damage);
    SKIVET_TRY(auto picture, export_as(texture, ExportAs::picture));
    SKIVET_TRY(auto edited, read_edited(std::move(picture), c.context.limits));
    SKIVET_CHECK(touch(edited, touches, touch_pictures_in({}, c.context.limits), c.cancel));
    const bool srgb = is_encoded_color(texture.layout.desc);
    return edited.wide ? write_png16(*edited.wide, srgb) : write_png(edited.image, srgb);
}

Result<std::vector<TouchUp>> touches_of(const TouchOptions& options) {
    std::vector<TouchUp> out;
    const TouchLists lists(TouchLists::standard_folder());
    if (!options.list.empty()) {
        SKIVET_TRY(out, lists.read(options.list));
    }
    for (const auto& text : options.touches) {
        SKIVET_TRY(auto one, parse_touch_up(text));
        out.push_back(std::move(one));
    }
    if (!options.mask.empty()) {
        SKIVET_TRY(const auto mask, parse_touch_mask(options.mask));
        for (auto& one : out)
            if (one.mask.by == TouchMask::By::everywhere && !one.row->resizes) one.mask = mask;
    }
    if (!options.keep_as.empty()) SKIVET_CHECK(lists.keep(options.keep_as, out));
    return out;
}

}  // namespace

int touch_files(Context& c, const TouchOptions& options) {
    const auto touches = touches_of(options);
    if (!touches) return c.failed(touches.error());
    const auto mends = parse_mends(options.mends);
    if (!mends) return c.failed(mends.error());
    int code = 0;
    std::size_t done = 0;
    const auto failed = [&](const std::string& name, const Error& error) { code = c.failed(error.within(name)); };
    std::map<fs::path, std::vector<AddressedBytes>> by_source;  // one delivery each
    std::map<fs::path, std::string> written;
    std::set<std::string> seen;
    std::vector<std::uint64_t> sizes;
    for (const auto& name : options.files) {
        const auto address = parse_address(name);
        std::error_code unknown;
        const auto size = address && address->inner.empty() ? fs::file_size(address->source, unknown) : 0;
        sizes.push_back(unknown ? 0 : size);
    }
    for (const auto i : part_of(sizes, options.shard)) {
        const auto& name = options.files[i];
        if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
        const auto address = parse_address(name);
        if (!address) {
            failed(name, address.error());
            continue;
        }
        const auto own_name = address->inner.empty() ? address->source.filename().string() : address->inner.back();
        const auto current = read_texture_bytes(c.context, *address);
        if (!current) {
            failed(name, current.error());
            continue;
        }
        auto png = touched(c, *current, own_name, *touches);
        if (!png) {
            failed(name, png.error());
            continue;
        }
        if (!options.to.empty()) {
            const auto path = options.to / fs::path(own_name).filename().replace_extension(".png");
            if (const auto [other, fresh] = written.try_emplace(path, name); !fresh) {
                failed(name, {ErrorCode::usage, "would be the same file as " + other->second, {}, {}, "Give it a folder of its own"});
                continue;
            }
            std::error_code code_of;
            if (fs::equivalent(path, address->source, code_of)) {
                failed(name,
                       {ErrorCode::usage, "is the file itself", {}, {}, "Name another folder; without --to it is changed with a way back"});
                continue;
            }
            if (options.resume && fs::exists(path, code_of)) continue;
            if (!options.force && fs::exists(path, code_of)) {
                failed(name, {ErrorCode::usage, path.string() + " is there already", {}, {}, "--force writes over it"});
                continue;
            }
            if (!options.dry_run)
                if (auto put = write_file(path, *png); !put) return c.failed(put.error());
            if (c.json) c.out << dump(nlohmann::json{{"file", path.string()}, {"of", name}}) << '\n';
            else c.out << path.string() << '\n';
            ++done;
            continue;
        }
        auto content = content_for(c, current, own_name, std::move(*png), "touched.png", false, {*mends});
        if (!content) {
            failed(name, content.error());
            continue;
        }
        if (!seen.insert(address->text()).second) {
            failed(name, {ErrorCode::usage, "is named twice", {}, {}, "Name it once"});
            continue;
        }
        ++done;
        if (!address->inner.empty()) {
            by_source[address->source].push_back({address->inner, std::move(*content)});
            continue;
        }
        const auto plan = plan_replacement(c.context, *address, *content);
        if (!plan) return c.failed(plan.error());
        if (options.dry_run) {
            print_plan(c, *plan, true);
            continue;
        }
        const int put = deliver(c, *plan, {own_name + " touched up", address->source, {}}, [&]() -> Status {
            SKIVET_TRY(const auto back, read_texture_bytes(c.context, *address));
            if (back != *content) return fail(ErrorCode::io, "the file does not read back as it was written");
            return {};
        });
        if (put != 0) return put;
    }
    for (auto& [source, items] : by_source) {
        const auto opened = open_source(c.context, source);
        if (!opened) return c.failed(opened.error());
        const int put = put_pieces(c, **opened, source, std::move(items), {{}, {}, options.dry_run});
        if (put != 0) return put;
    }
    return code != 0 && done > 0 ? 1 : code;
}

}  // namespace skivet::cli
