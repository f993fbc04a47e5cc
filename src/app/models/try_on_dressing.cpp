// What lies on a mesh, and what comes of it as files.
#include <set>

#include "app/language.h"
#include "app/models/try_on_model.h"
#include "base/file_write.h"
#include "base/text.h"
#include "texture/png.h"

namespace skivet::app {
namespace {

constexpr std::uint32_t most_of_shown = 8192, most_of_others = 2048;
constexpr std::size_t most_worn = 12;  ///< textures of a set

std::string wish_text(const Piece& piece) {
    std::string out(info(piece.options.format).name);
    for (const auto& mend : ids_of(piece.options.mends)) out += ' ' + mend;
    return out;
}

}  // namespace

std::vector<TryOnModel::Worn> TryOnModel::worn_of(std::size_t set) const {
    std::vector<Worn> out;
    const auto& snapshot = *seen_->snapshot;
    const auto& items = snapshot.catalog.items;
    auto members = outfit_.sets[set];
    // The one that is tried on is worn in any case, and before the others of its role.
    if (set == 0 && item_ < items.size()) {
        members.erase(std::remove(members.begin(), members.end(), item_), members.end());
        members.insert(members.begin(), item_);
    }
    for (const auto i : members) {
        if (out.size() == most_worn) break;
        if (i >= items.size()) {
            out.push_back({i, shown_->piece});
            continue;
        }
        const auto* piece = store_.piece_of(address_of(snapshot.sources[items[i].source], items[i]));
        out.push_back({i, piece ? piece->id : 0});
    }
    return out;
}

void TryOnModel::dress() {
    dressing_.cancel();
    dressing_ = {};
    if (!dressing_on_ || !mesh_ || outfit_.sets.empty()) return;
    const auto& snapshot = *seen_->snapshot;
    const auto& items = snapshot.catalog.items;
    struct Task {
        MapKey key;
        MapWish wish;
        std::optional<Piece> piece;
        bool edited = false;
        std::shared_ptr<const FittedPiece> fitted;
    };
    std::vector<Task> tasks;
    std::vector<std::vector<std::pair<MapKey, WornMap>>> sets(outfit_.sets.size());
    bool waits = false;
    for (std::size_t s = 0; s < sets.size(); ++s)
        for (const auto& worn : worn_of(s)) {
            const auto* piece = store_.project().piece(worn.piece);
            // What was taken may be taken anew.
            Task task{
                {worn, piece ? "game " + piece->original_hash : "game"}, {}, piece ? std::optional(*piece) : std::nullopt, false, nullptr};
            const bool is_item = worn.item < items.size();
            const auto role = is_item ? seen_->analysis.roles[worn.item] : Role::unsure;
            task.wish = {role, worn.item == item_ ? most_of_shown : most_of_others,
                         is_item ? items[worn.item].desc.format : Format::unknown};
            if (piece && is_painted(*piece) && side_ != Side::game) {
                task.edited = side_ == Side::yours;
                task.key.second = task.edited ? "edit " + piece->edit() : "fit " + piece->edit() + ' ' + wish_text(*piece);
                if (!task.edited && !maps_.contains(task.key) && !unread_.contains(task.key)) {
                    task.fitted = bench_.fits().fit(piece->id);
                    if (!task.fitted) {  // `ready` comes back here
                        waits = true;
                        continue;
                    }
                }
            }
            const auto path = is_item ? items[worn.item].path() : shown_->name();
            sets[s].push_back({task.key, {role, path, {}}});
            if (!maps_.contains(task.key) && !unread_.contains(task.key)) tasks.push_back(std::move(task));
        }
    if (waits) return set_message(tr("Fitting…"));
    struct Dressed {
        std::map<MapKey, SharedMap> maps;
        std::map<MapKey, QString> unread;
        std::vector<MeshSurface> of_set;
        SharedMap flat_map;
        QImage flat;
    };
    jobs_.run(
        this, tasks.empty() ? QString() : tr("Reading textures"),
        [context = store_.context(), project = store_.shared(), catalog = seen_, tasks = std::move(tasks), sets, maps = maps_,
         now = flat_map_, cancel = dressing_]() mutable {
            Dressed out;
            for (const auto& task : tasks) {
                if (cancel.canceled()) break;
                Result<SharedMap> map = SharedMap();
                if (task.fitted) {
                    const auto& fit = task.fitted->made.fit;
                    if (fit && !fit->file.empty())
                        map = map_of(TextureFile{task.fitted->original->kind, fit->layout, fit->file}, task.wish);
                    else map = fail(ErrorCode::unsupported, tr("The game could not read this yet. See the fit list.").toStdString());
                } else if (task.piece) {
                    map = worn_map(*context, *project, *task.piece, task.edited, task.wish, cancel);
                } else {
                    const auto& item = catalog->snapshot->catalog.items[task.key.first.item];
                    const auto& source = catalog->snapshot->sources[item.source];
                    if (source.container) {
                        auto texture = open_texture(*context, source, item);
                        map = texture ? map_of(*texture, task.wish) : Result<SharedMap>(tl::unexpected(std::move(texture).error()));
                    } else {
                        map = fail(ErrorCode::missing, tr("Its source is not open.").toStdString());
                    }
                }
                if (map) out.maps.emplace(task.key, *map);
                else if (map.error().code != ErrorCode::canceled) out.unread.emplace(task.key, spoken(map.error().message()));
            }
            maps.insert(out.maps.begin(), out.maps.end());
            for (std::size_t s = 0; s < sets.size(); ++s) {
                std::vector<WornMap> worn;
                for (auto& [key, one] : sets[s])
                    if (const auto found = maps.find(key); found != maps.end()) {
                        one.map = found->second;
                        worn.push_back(one);
                        if (s == 0 && worn.size() == 1 && &one == &sets[0].front().second) out.flat_map = one.map;
                    }
                out.of_set.push_back(surface_of(worn));
            }
            if (out.flat_map && out.flat_map != now && out.flat_map->is_there()) out.flat = to_qimage(out.flat_map->levels.front());
            return out;
        },
        [this, asked = dressing_, keys = sets](Dressed dressed) {
            if (asked.canceled()) return;
            maps_.merge(dressed.maps);
            unread_.merge(dressed.unread);
            // Of what was worn before only the game's own is kept for the next look.
            std::set<MapKey> used;
            for (const auto& set : keys)
                for (const auto& [key, one] : set) used.insert(key);
            std::erase_if(maps_, [&](const auto& one) { return one.first.second.starts_with("edit ") && !used.contains(one.first); });
            std::erase_if(unread_, [&](const auto& one) { return !used.contains(one.first); });
            flat_map_ = dressed.flat_map;
            if (!dressed.flat.isNull()) flat_ = dressed.flat;
            if (!flat_map_) flat_ = {};
            auto scene = pictures_.scene();
            scene.surfaces.clear();
            for (const auto set : outfit_.of_part) {
                auto surface = set == Outfit::none ? MeshSurface{} : dressed.of_set[set];
                surface.green_down = choice_.green_down;
                scene.surfaces.push_back(std::move(surface));
            }
            pictures_.set_scene(std::move(scene));
            if (pictures_.scene().rays) message_.clear();
            emit scene_changed(false);
        });
}

void TryOnModel::open_table(const std::filesystem::path& file, std::function<void(Result<std::shared_ptr<const OpenTable>>)> done) {
    jobs_.run(
        this, tr("Reading a mesh"),
        [file, readings = store_.project().table_readings]() -> Result<std::shared_ptr<const OpenTable>> {
            SKIVET_TRY(const auto bytes, read_file(file, MeshLimits{}.file_bytes));
            auto out = std::make_shared<OpenTable>();
            SKIVET_TRY(out->table, read_vertex_table(bytes));
            const auto kept = readings.find(columns_key(out->table));
            out->reading = kept == readings.end() ? proposed_reading(out->table) : kept->second;
            return std::shared_ptr<const OpenTable>(std::move(out));
        },
        std::move(done));
}

void TryOnModel::keep_reading(const VertexTable& table, const TableReading& reading) {
    if (store_.is_open()) store_.change([&](Project& project) { project.table_readings[columns_key(table)] = reading; });
    const bool worn = std::any_of(meshes_.begin(), meshes_.end(), [](const MeshRow& row) {
        const auto* address = std::get_if<Address>(&row.place);
        return row.on && address && is_table_path(address->source.string());
    });
    if (worn) load();
}

void TryOnModel::save_islands(const std::filesystem::path& file, bool over_picture, std::function<void(std::optional<Error>)> done) {
    if (!layout()) return;
    const auto ending = lower(file.extension().string());
    if (ending != ".svg" && ending != ".png")
        return done(
            fail(ErrorCode::usage, tr("Islands are saved as .png or .svg, not as %1.").arg(QString::fromStdString(ending)).toStdString())
                .value());
    jobs_.run(
        this, tr("Saving the islands"),
        [file, is_svg = ending == ".svg", over_picture, layout = layout(), map = flat_map_]() -> std::optional<Error> {
            const bool has_picture = map && map->is_there();
            const auto bytes = [&]() -> Result<Bytes> {
                if (is_svg) {
                    std::string picture;
                    if (over_picture && has_picture) {
                        SKIVET_TRY(const auto png, write_png(map->levels.front()));
                        picture = "data:image/png;base64," +
                                  QByteArray::fromRawData(reinterpret_cast<const char*>(png.data()), qsizetype(png.size()))
                                      .toBase64()
                                      .toStdString();
                    }
                    const auto text = uv_svg(*layout, {}, picture);
                    const auto span = std::as_bytes(std::span(text));
                    return Bytes(span.begin(), span.end());
                }
                Image image = over_picture && has_picture ? map->levels.front() : Image(layout->width, layout->height, {0, 0, 0, 0});
                draw_uv(image, *layout);
                return write_png(image);
            }();
            if (!bytes) return bytes.error();
            if (auto written = write_file(file, *bytes); !written) return written.error();
            return std::nullopt;
        },
        [done = std::move(done)](std::optional<Error> error) { done(std::move(error)); });
}

}  // namespace skivet::app
