// Commands that only read: list, show, verify, compare, sheet check.
#include <fmt/format.h>
#include <cmath>
#include <nlohmann/json.hpp>
#include <ostream>
#include <unordered_map>

#include "base/file_write.h"
#include "base/hash.h"
#include "base/text.h"
#include "bench/fitting.h"
#include "catalog/names.h"
#include "cli/catalog_look.h"
#include "cli/json_line.h"
#include "cli/lines.h"
#include "cli/terminal.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "container/sift.h"
#include "container/texture_files.h"
#include "pixel/alpha_use.h"
#include "pixel/normals.h"
#include "pixel/role_metrics.h"

namespace skivet::cli {
namespace {

using nlohmann::json;

std::string json_line(const Source& source, const CatalogItem& item, Role role, std::uint32_t twins) {
    const auto& d = item.desc;
    const bool known = item.is_texture() && d.format != Format::unknown;
    JsonLine j;
    j.add("address", address_of(source, item).text());
    if (known) j.add("color", name_of(d.color)).add("depth", d.depth);
    j.add("effective", bool{item.effective});
    if (known) j.add("faces", d.faces).add("format", info(d.format).name).add("height", d.height);
    j.add("kind", name_of(item.kind));
    if (known) j.add("layers", d.layers);
    j.add("method", item.method.text());
    if (known) j.add("mips", d.mips);
    j.add("path", item.path());
    if (item.is_texture()) j.add("role", token_of(role));
    j.add("size", item.size).add("source", source.path.string()).add("stored", item.stored);
    if (item.is_texture()) j.add("twins", twins);
    if (known) j.add("width", d.width);
    return std::move(j).line();
}

CatalogOptions options_of(const ListOptions& options, bool as_json) {
    CatalogOptions out;
    out.recurse = options.recursive;
    out.recognize_content = options.textures || as_json || options.recursive;
    return out;
}

/// JSON has no infinity; equal pictures have no noise.
json decibels(double value) { return std::isinf(value) ? json(nullptr) : json(std::round(value * 1000) / 1000); }
std::string decibel_text(double value) { return std::isinf(value) ? "equal" : fmt::format("{:.2f} dB", value); }

}  // namespace

int Context::failed(const Error& error) const {
    err << "skivet-cli: " << error.message() << '\n';
    return exit_code(error.code);
}

void Context::say(const std::string& line) const {
    if (!quiet) err << line << '\n';
}

int list(Context& c, const ListOptions& options) {
    std::vector<std::filesystem::path> paths(options.sources.begin(), options.sources.end());
    auto sources = open_sources(c.context, paths);
    int code = 0;
    bool any = false;
    for (const auto& source : sources) {
        if (source.error) code = c.failed(*source.error);
        else any = true;
    }
    if (!any) return code;
    if (!options.textures && !options.recursive && !c.json) {
        // Only names and sizes: straight from the directory, whatever its length.
        // Put together by hand: a format string takes three times as long, and there may be a million lines.
        std::string text;
        const auto put = [&](std::string_view word, std::size_t width, bool right) {
            const auto pad = width - std::min(width, word.size());
            if (right) text.append(pad, ' ');
            text += word;
            if (!right) text.append(pad, ' ');
        };
        const auto flush = [&](std::size_t from) {
            if (text.size() < from) return;
            c.out.write(text.data(), static_cast<std::streamsize>(text.size()));
            text.clear();
        };
        for (const auto& source : sources) {
            if (!source.container) continue;
            const auto path = source.path.string();
            // There may be a million names, but not many endings.
            std::unordered_map<std::string_view, EntryKind> by_ending;
            const auto kind_of = [&](std::string_view name) {
                const auto ending = name.substr(std::min(name.size(), name.rfind('.')));
                const auto found = by_ending.find(ending);
                if (found != by_ending.end()) return found->second;
                return by_ending[ending] = kind_by_name(c.context.textures, ending);
            };
            for (const auto& e : source.container->entries()) {
                if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
                if (!c.out) return 4;  // nobody reads on; `run` says so
                const auto fits = [&](const std::string& pattern) { return glob_match(pattern, e.path); };
                if (!options.match.empty() && std::none_of(options.match.begin(), options.match.end(), fits)) continue;
                put(grouped(e.size), 12, true);
                text += "  ";
                put(e.method, 10, false);
                put(name_of(kind_of(e.path)), 33, false);
                text += path;
                text += "::";
                text += e.path;
                text += '\n';
                flush(1u << 16);
            }
            for (const auto& problem : source.container->problems())
                code = 1, c.err << "skivet-cli: " << problem.within(source.path.filename().string()).message() << '\n';
        }
        flush(1);
        return code == 0 ? 0 : 1;
    }
    Progress progress;
    progress.cancel = c.cancel;
    // Names and headers answer at once; pictures are looked at where that is asked for, or where an index keeps what was seen.
    const bool by_picture = options.roles.empty() ? !options.index.empty() : options.roles == "picture";
    const bool with_pictures = c.json && options.textures && by_picture;
    ReadCatalog looked;
    if (with_pictures) {
        auto all = read_catalog(c, std::move(sources), options.index, options_of(options, c.json));
        if (!all) return c.failed(all.error());
        looked = std::move(*all);
    } else {
        const Shown shown(c, progress, "Reading archives");
        auto catalog = build_catalog(c.context, sources, progress, options_of(options, c.json));
        if (!catalog) return c.failed(catalog.error());
        looked.catalog = std::move(*catalog);
        looked.sources = std::move(sources);
        if (c.json) looked.analysis = analyze_catalog(looked.catalog, {}, {});
    }
    const auto* catalog = &looked.catalog;
    write_lines(c.out, catalog->items.size(), [&](std::size_t i) -> std::string {
        const auto& item = catalog->items[i];
        if (options.textures && !item.is_texture()) return {};
        if (item.inner.size() > 1 && !options.recursive) return {};
        const auto fits = [&](const std::string& pattern) { return glob_match(pattern, item.path()); };
        if (!options.match.empty() && std::none_of(options.match.begin(), options.match.end(), fits)) return {};
        const auto& source = looked.sources[item.source];
        if (c.json) return json_line(source, item, looked.analysis.roles[i], looked.analysis.twins[i]);
        std::string what(name_of(item.kind));
        if (item.is_texture() && item.desc.format != Format::unknown)
            what = fmt::format("{} {} {} {}", name_of(item.kind), info(item.desc.format).name, size_text(item.desc), item.desc.mips);
        return fmt::format("{:>12}  {:<9} {:<32} {}\n", grouped(item.size), item.method.text(), what, address_of(source, item).text());
    });
    for (const auto& problem : catalog->problems) {
        c.err << "skivet-cli: " << problem.message() << '\n';
        code = 1;
    }
    return code == 0 ? 0 : 1;
}

int show(Context& c, const std::string& text) {
    const auto address = parse_address(text);
    if (!address) return c.failed(address.error());
    auto bytes = read_address(c.context, *address);
    if (!bytes) return c.failed(bytes.error());
    bool problems = false;  // what the archive itself says is wrong with this entry
    if (!address->inner.empty())
        if (const auto source = open_source(c.context, address->source))
            for (const auto& problem : (*source)->problems())
                if (!problem.where.empty() && problem.where.front() == address->inner.front()) c.failed(problem), problems = true;
    const auto size = bytes->size();
    const auto name = address->inner.empty() ? address->source.string() : address->inner.back();
    json j = {{"address", address->text()}, {"size", size}, {"sha256", to_hex(sha256(*bytes))}};
    std::vector<std::pair<std::string, std::string>> lines = {{"address", address->text()}, {"bytes", grouped(size)}};
    if (c.context.textures.recognize(*bytes, name, bytes->size())) {
        const auto texture = open_spread(c.context.textures, std::move(*bytes), name, siblings_of(c.context, *address), c.context.limits);
        if (!texture) return c.failed(texture.error().within(name));
        const auto& d = texture->layout.desc;
        const auto& damage = texture->layout.damage;
        const auto guess = damage ? Result<MipGuess>(MipGuess{}) : guess_mips(*texture);
        if (!guess) return c.failed(guess.error().within(name));
        const auto made_by = damage ? std::string("not known, the texture is not whole") : describe(*guess);
        if (damage) {
            j["damage"] = damage->message();
            lines.push_back({"damage", damage->message()});
        }
        j.update({{"kind", "texture"},
                  {"file_kind", texture->kind->name()},
                  {"format", std::string(info(d.format).name)},
                  {"width", d.width},
                  {"height", d.height},
                  {"depth", d.depth},
                  {"layers", d.layers},
                  {"faces", d.faces},
                  {"mips", d.mips},
                  {"color", std::string(name_of(d.color))},
                  {"mip_filter", made_by},
                  {"mips_known", guess->known},
                  {"mips_confidence", std::round(guess->confidence * 1000) / 1000}});
        if (guess->second) j["mips_second"] = std::string(name_of(guess->second->filter));
        if (guess->normals) j["normals"] = std::string(describe(*guess->normals));
        const auto top = texture->decode(first_level_there(texture->layout));
        if (!top) return c.failed(top.error().within(name));
        const auto alpha = info(d.format).has_alpha ? alpha_facts(*top) : AlphaFacts{};
        j.update(
            {{"alpha", std::string(name_of(alpha.use))}, {"hidden_colors", alpha.hidden_colors}, {"premultiplied", alpha.premultiplied}});
        lines.insert(lines.end(), {{"kind", texture->kind->name()},
                                   {"format", std::string(info(d.format).name)},
                                   {"size", size_text(d)},
                                   {"mips", std::to_string(d.mips)},
                                   {"color", std::string(name_of(d.color))},
                                   {"mips made by", made_by},
                                   {"alpha", describe(alpha)}});
        if (const auto use = use_of(*texture, *guess); !use.empty()) lines.push_back({"use", use});
        if (texture->layout.direct)
            for (const auto& s : texture->layout.surfaces)
                if (s.layer == 0 && s.face == 0 && s.slice == 0)
                    lines.push_back({fmt::format("mip {}", s.mip),
                                     fmt::format("{}×{}, {} bytes at {}", s.width, s.height, grouped(s.size), hex(s.offset))});
    } else {
        j["kind"] = "other";
        lines.push_back({"kind", "no texture we know"});
    }
    if (c.json) c.out << dump(j) << '\n';
    else
        for (const auto& [key, value] : lines) c.out << fmt::format("{:<14}{}\n", key, value);
    return problems ? 1 : 0;
}

int verify(Context& c, const std::string& path) {
    const auto source = open_source(c.context, path);
    if (!source) return c.failed(source.error());
    const auto& container = **source;
    std::uint64_t damaged = 0;
    const auto say = [&](const std::string& where, const Error& error) {
        ++damaged;
        if (c.json) c.out << dump({{"path", where}, {"damaged", true}, {"message", error.message()}}) << '\n';
        else c.out << "damaged: " << error.message() << '\n';
    };
    for (const auto& problem : container.problems()) say(path, problem.within(std::filesystem::path(path).filename().string()));
    for (std::size_t i = 0; i < container.entries().size(); ++i) {
        if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
        const auto& entry = container.entries()[i];
        auto bytes = container.read(i, c.context.limits);
        std::optional<Error> error;
        if (!bytes) error = bytes.error();
        else if (c.context.textures.recognize(*bytes, entry.path, bytes->size()))
            if (auto texture = open_spread(c.context.textures, std::move(*bytes), entry.path,
                                           siblings_of(c.context, container, {entry.path}), c.context.limits);
                !texture || texture->layout.damage)
                error = in_entry(container, i, texture ? *texture->layout.damage : texture.error());
        if (error) say(entry.path, *error);
    }
    if (c.json) c.out << dump({{"entries", container.entries().size()}, {"damaged", damaged}}) << '\n';
    else c.out << fmt::format("{}, {} damaged\n", count_of(container.entries().size(), "entry", "entries"), grouped(damaged));
    return damaged ? 3 : 0;
}

int compare(Context& c, const std::string& a, const std::string& b) {
    std::vector<TextureFile> textures;
    for (const auto& text : {a, b}) {
        const auto address = parse_address(text);
        if (!address) return c.failed(address.error());
        auto texture = open_texture_at(c.context, *address);
        if (!texture) return c.failed(texture.error().within(text));
        textures.push_back(std::move(*texture));
    }
    const auto& x = textures[0];
    const auto& y = textures[1];
    if (x.layout.desc.width != y.layout.desc.width || x.layout.desc.height != y.layout.desc.height)
        return c.failed(Error{ErrorCode::unfit,
                              fmt::format("{} and {} texels cannot be compared", size_text(x.layout.desc), size_text(y.layout.desc)),
                              {},
                              {},
                              {}});
    json levels = json::array();
    std::optional<NormalChannels> normals;  // of both
    for (std::uint32_t mip = 0; mip < std::min(x.layout.desc.mips, y.layout.desc.mips); ++mip) {
        const auto p = x.decode(mip), q = y.decode(mip);
        if (!p) return c.failed(p.error());
        if (!q) return c.failed(q.error());
        const auto d = difference(paint_form(x.layout.desc.format, *p), paint_form(y.layout.desc.format, *q));
        const bool color = x.layout.desc.color == ColorSpace::srgb;  // only then is there light to compare
        if (mip == 0) {
            normals = guess_normals(x.layout.desc.format, *p);
            const auto others = guess_normals(y.layout.desc.format, *q);
            // Where one of them does not store z, the other's is not looked at.
            const bool alike = normals && others && normals->x == others->x && normals->y == others->y && normals->scale == others->scale;
            if (!alike) normals = std::nullopt;
            else if (normals->z >= 0) normals = others;
        }
        json level = {{"mip", mip},
                      {"psnr_rgb", decibels(d.psnr_rgb)},
                      {"psnr_alpha", decibels(d.psnr_alpha)},
                      {"ssim", std::round(d.ssim * 1e6) / 1e6},
                      {"max_error", d.max_error},
                      {"changed_texels", d.changed_texels}};
        if (color) level["psnr_light"] = decibels(d.psnr_light);
        std::string by_role;
        if (c.json)
            for (const auto value : psnr_by_channel(*p, *q)) level["psnr_channels"].push_back(decibels(value));
        const auto say = [&](const char* name, const ErrorSpread& off, const char* unit) {
            level[fmt::format("{}_mean", name)] = std::round(off.mean * 1e4) / 1e4;
            level[fmt::format("{}_99", name)] = off.most;
            by_role += fmt::format(" · {:.2f}{} off, 99 % within {:.2f}{}", off.mean, unit, off.most, unit);
        };
        if (normals) say("degrees", angles_between(*normals, *p, *q), "°");
        if (info(x.layout.desc.format).is_float() && info(y.layout.desc.format).is_float()) {
            const auto wide = x.decode_wide(mip), other = y.decode_wide(mip);
            if (!wide) return c.failed(wide.error());
            if (!other) return c.failed(other.error());
            say("stops", stops_between(*wide, *other), " stops");
        }
        std::string blocks;
        const auto& f = info(x.layout.desc.format);
        if (f.block_compressed() && x.layout.desc.format == y.layout.desc.format) {
            const auto left = x.surface_bytes(*x.layout.find(mip)), right = y.surface_bytes(*y.layout.find(mip));
            if (!left) return c.failed(left.error());
            if (!right) return c.failed(right.error());
            std::uint64_t changed = 0;
            for (std::size_t at = 0; at < left->size(); at += f.block_bytes)
                changed += !std::equal(left->begin() + static_cast<std::ptrdiff_t>(at),
                                       left->begin() + static_cast<std::ptrdiff_t>(at + f.block_bytes),
                                       right->begin() + static_cast<std::ptrdiff_t>(at));
            level["changed_blocks"] = changed;
            blocks = fmt::format(" · {}", count_of(changed, "block"));
        }
        if (!c.json)
            c.out << fmt::format("mip {}: color {}{} · alpha {}{} · SSIM {:.4f} · largest error {} · {} texels{}\n", mip,
                                 decibel_text(d.psnr_rgb), color ? " (" + decibel_text(d.psnr_light) + " in light)" : "",
                                 decibel_text(d.psnr_alpha), by_role, d.ssim, d.max_error, grouped(d.changed_texels), blocks);
        levels.push_back(std::move(level));
    }
    if (c.json) {
        auto j = levels.front();
        j.erase("mip");
        j["mips"] = levels;
        c.out << dump(j) << '\n';
    }
    return 0;
}

int names(Context& c, const std::vector<std::string>& texts) {
    std::vector<std::filesystem::path> paths(texts.begin(), texts.end());
    const auto sources = open_sources(c.context, paths);
    for (const auto& source : sources)
        if (source.error) return c.failed(*source.error);
    Progress progress;
    progress.cancel = c.cancel;
    const Shown shown(c, progress, "Looking for names", true);
    const auto found = find_names(c.context, sources, progress);
    if (!found) return c.failed(found.error());
    for (const auto& name : *found) {
        if (c.json)
            c.out << dump({{"source", sources[name.source].path.string()},
                           {"hash", name.hash},
                           {"path", name.path},
                           {"found_in", name.found_in}})
                  << '\n';
        else c.out << name.path << '\n';  // one a line, as --paths reads them
    }
    c.err << fmt::format("skivet-cli: {} found\n", count_of(found->size(), "name"));
    return 0;
}

namespace {

void print_hits(Context& c, const std::vector<SiftHit>& hits, const std::string& around, unsigned depth) {
    for (const auto& hit : hits) {
        if (c.json) {
            json j = {{"at", hit.at},
                      {"size", hit.size},
                      {"kind", hit.kind},
                      {"confidence", hit.confidence},
                      {"stream", hit.packing.has_value()}};
            if (!around.empty()) j["inside"] = around;
            if (!hit.key.empty()) j["key"] = to_hex(hit.key);
            if (hit.bare && hit.bare->palette_bits) j["palette_at"] = hit.bare->palette_at;
            if (hit.packing) j["unpacked"] = hit.unpacked;
            else
                j.update({{"format", std::string(info(hit.desc.format).name)},
                          {"width", hit.desc.width},
                          {"height", hit.desc.height},
                          {"mips", hit.desc.mips}});
            c.out << dump(j) << '\n';
        } else {
            const auto what = hit.packing
                                  ? fmt::format("{} stream, {} bytes unpacked", hit.kind, grouped(hit.unpacked))
                                  : fmt::format("{} {}{} {}, {} mips{}", hit.kind, hit.bare && hit.bare->palette_bits ? "palette of " : "",
                                                info(hit.desc.format).name, size_text(hit.desc), hit.desc.mips,
                                                hit.key.empty() ? std::string() : ", behind the key " + to_hex(hit.key));
            c.out << fmt::format("{:{}}{:<12} {:>12} bytes  {:3.0f} %  {}\n", "", 2 * depth, hex(hit.at), grouped(hit.size),
                                 100 * hit.confidence, what);
        }
        print_hits(c, hit.inside, around + fmt::format("{}{}", around.empty() ? "" : "/", hex(hit.at)), depth + 1);
    }
}

}  // namespace

int sift_file(Context& c, const std::string& file) {
    const auto view = FileView::open(file);
    if (!view) return c.failed(view.error());
    const auto data = view->bytes();
    if (!data) return c.failed(data.error());
    Progress progress;
    progress.cancel = c.cancel;
    std::vector<std::string> left_out;
    SiftOptions options;
    options.left_out = &left_out;
    auto shown = std::make_unique<Shown>(c, progress, "Sifting", true);
    const auto hits = sift(c.context, *data, progress, options);
    shown.reset();
    if (!hits) return c.failed(hits.error());
    print_hits(c, *hits, {}, 0);
    for (const auto& note : left_out) c.err << fmt::format("skivet-cli: {}\n", note);
    if (hits->empty())
        c.err << fmt::format("skivet-cli: nothing that can be recognized is in {}; `sheet draft` looks for an archive's table instead\n",
                             std::filesystem::path(file).filename().string());
    return 0;
}

}  // namespace skivet::cli
