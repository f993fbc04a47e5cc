#include "app/models/try_on_model.h"

#include "app/language.h"
#include "base/text.h"
#include "catalog/usage.h"

namespace skivet::app {
namespace {

constexpr float sure_enough = 0.5f;  ///< below that a plain body tells more than a mesh that may be another's

std::vector<OverlayLine> overlay_of(const UvLayout& layout) {
    using Look = OverlayLine::Look;
    // All are gone through at every paint; what lies inside islands is not told apart where there is so much of it.
    constexpr std::size_t most_lines = 300'000;
    std::vector<OverlayLine> out;
    const auto lines = uv_lines(layout);
    for (const auto& line : lines) {
        if (!line.border && lines.size() > most_lines) continue;
        const auto& island = layout.islands[line.island];
        out.push_back({QLineF(double(line.from[0]), double(line.from[1]), double(line.to[0]), double(line.to[1])), int(line.island),
                       !line.border      ? Look::faint
                       : island.mirrored ? Look::first
                       : island.shared   ? Look::second
                                         : Look::plain});
    }
    return out;
}

}  // namespace

std::string TryOnModel::Shown::name() const {
    const auto& path = address.inner.empty() ? address.source.string() : address.inner.back();
    const auto slash = path.find_last_of("/\\");
    return slash == std::string::npos ? path : path.substr(slash + 1);
}

bool TryOnModel::is_painted(const Piece& piece) { return piece.state != PieceState::out && piece.state != PieceState::on_the_bench; }

TryOnModel::TryOnModel(ProjectStore& store, CatalogModel& catalog, BenchModel& bench, QObject* parent)
    : QObject(parent), store_(store), catalog_(catalog), bench_(bench), jobs_(store.jobs()), pictures_(store.jobs()) {
    // Another snapshot has other numbers; and what belongs to a set is known only when its pictures were looked at.
    const auto renew = [this] {
        if (!shown_ || !seen_) return;
        const auto now = catalog_.catalog();
        if (now->snapshot != seen_->snapshot || (seen_->unseen > 0 && now->unseen == 0)) begin(false);
    };
    connect(&catalog_, &CatalogModel::catalog_changed, this, renew);
    connect(&catalog_, &CatalogModel::analysis_changed, this, renew);
    connect(&bench_, &BenchModel::pieces_changed, this, [this] {
        if (!shown_) return;
        dress();
        emit rows_changed();
    });
    connect(&bench_.fits(), &FitModel::ready, this, [this] {
        if (shown_ && side_ == Side::result) dress();
    });
    connect(&store_, &ProjectStore::opened, this, &TryOnModel::clear);
}

TryOnModel::~TryOnModel() {
    for (const auto* token : {&finding_, &loading_, &building_, &dressing_}) token->cancel();
}

void TryOnModel::show_item(std::size_t item) {
    const auto snapshot = catalog_.snapshot();
    if (item >= snapshot->catalog.items.size()) return clear();
    const auto address = catalog_.address_at(item);
    if (shown_ && shown_->address == address) return;
    const auto* piece = store_.piece_of(address);
    shown_ = Shown{address, piece ? piece->id : 0};
    side_ = piece && is_painted(*piece) ? Side::yours : Side::game;
    begin(true);
}

void TryOnModel::show_piece(PieceId id) {
    const auto* piece = store_.project().piece(id);
    if (!piece) return clear();
    if (shown_ && shown_->address == piece->address && shown_->piece == id) return;
    shown_ = Shown{piece->address, id};
    side_ = is_painted(*piece) ? Side::yours : Side::game;
    begin(true);
}

void TryOnModel::clear() {
    for (const auto* token : {&finding_, &loading_, &building_, &dressing_}) token->cancel();
    shown_.reset();
    seen_.reset();
    meshes_.clear();
    parts_.clear();
    details_.clear();
    maps_.clear();
    unread_.clear();
    mesh_.reset();
    overlay_.reset();
    flat_ = {};
    flat_map_.reset();
    pictures_.set_scene({});
    emit rows_changed();
    emit scene_changed(true);
}

std::size_t TryOnModel::find_item(const Address& address) const {
    const auto& snapshot = *seen_->snapshot;
    const auto& items = snapshot.catalog.items;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (items[i].inner == address.inner && items[i].is_texture() && snapshot.sources[items[i].source].path == address.source) return i;
    return items.size();
}

const Piece* TryOnModel::piece_of_shown() const { return shown_ ? store_.piece_of(shown_->address) : nullptr; }

void TryOnModel::begin(bool anew) {
    for (auto* token : {&finding_, &loading_, &building_, &dressing_}) {
        token->cancel();
        *token = {};
    }
    seen_ = catalog_.catalog();
    item_ = find_item(shown_->address);
    const auto& items = seen_->snapshot->catalog.items;
    key_ = item_ < items.size() ? try_on_key(*seen_, item_) : path_key(shown_->address.inner);
    const auto& kept = store_.project().try_on;
    const auto found = kept.find(key_);
    choice_ = found == kept.end() ? TryOnChoice{} : found->second;
    texels_ = item_ < items.size() ? QSize(int(items[item_].desc.width), int(items[item_].desc.height)) : QSize(1024, 1024);
    maps_.clear();  // an item's number may be another's now
    unread_.clear();
    if (anew) {
        meshes_.clear();
        parts_.clear();
        details_.clear();
        overlay_.reset();
        mesh_.reset();
        flat_ = {};
        flat_map_.reset();
        wrong_.clear();
        pictures_.set_scene({});
        another_ = true;
        emit rows_changed();
    }
    set_message(tr("Looking for what it lies on…"));
    jobs_.run(
        this, tr("Looking for meshes"),
        [context = store_.context(), catalog = seen_, item = item_, cancel = finding_] {
            return find_meshes(*context, *catalog, item, cancel);
        },
        [this, asked = finding_](Result<std::vector<FoundMesh>> meshes) {
            if (!asked.canceled() && meshes) show_found(std::move(*meshes));
        });
}

void TryOnModel::show_found(std::vector<FoundMesh> found) {
    meshes_.clear();
    const auto is_chosen = [&](const MeshPlace& place) {
        const auto text = text_of(place);
        return std::find(choice_.meshes.begin(), choice_.meshes.end(), text) != choice_.meshes.end();
    };
    for (auto& mesh : found) meshes_.push_back({std::move(mesh.place), to_qstring(mesh.name), spoken(mesh.reason), false, false});
    const auto add = [&](const MeshPlace& place, const QString& reason) {
        for (const auto& row : meshes_)
            if (row.place == place) return;
        meshes_.push_back({place, to_qstring(title_of(place)), reason, false, false});
    };
    for (const auto& text : choice_.meshes)
        if (const auto place = mesh_place(text)) add(*place, tr("chosen by you"));
    for (const auto plain : {PlainMesh::plate, PlainMesh::cylinder, PlainMesh::ball}) add(plain, {});
    bool any = false;
    for (auto& row : meshes_) any = (row.on = is_chosen(row.place)) || any;
    if (!any) {
        const bool is_sure = !found.empty() && found.front().sure >= sure_enough;
        const auto plain =
            std::find_if(meshes_.begin(), meshes_.end(), [](const MeshRow& row) { return row.place == MeshPlace(PlainMesh::plate); });
        (is_sure ? meshes_.front() : *plain).on = true;
    }
    load();
}

void TryOnModel::load() {
    loading_.cancel();
    loading_ = {};
    building_.cancel();
    struct Loaded {
        std::shared_ptr<Mesh> mesh;
        std::vector<std::size_t> mesh_of_part;
        std::map<std::size_t, Error> errors;
        std::map<std::size_t, std::string> notes;  ///< what was left out of it
        Outfit outfit;
        std::vector<DetailLevel> details;
    };
    std::vector<std::pair<std::size_t, MeshPlace>> wanted;
    for (std::size_t i = 0; i < meshes_.size(); ++i)
        if (meshes_[i].on) wanted.emplace_back(i, meshes_[i].place);
    set_message(tr("Reading the mesh…"));
    emit rows_changed();
    jobs_.run(
        this, tr("Reading a mesh"),
        [context = store_.context(), catalog = seen_, item = item_, wanted, shape = shape(), readings = store_.project().table_readings,
         cancel = loading_] {
            Loaded out;
            std::vector<Mesh> meshes;
            for (const auto& [row, place] : wanted) {
                auto mesh = load_mesh(*context, place, shape, cancel, readings);
                if (!mesh) {
                    out.errors.emplace(row, std::move(mesh).error());
                    continue;
                }
                if (!mesh->notes.empty()) out.notes.emplace(row, mesh->notes.front());
                out.mesh_of_part.insert(out.mesh_of_part.end(), mesh->parts.size(), row);
                meshes.push_back(std::move(*mesh));
            }
            out.mesh = std::make_shared<Mesh>(joined(std::move(meshes)));
            out.outfit = outfit_of(*catalog, item, *out.mesh);
            out.details = levels_of_detail(*out.mesh);
            return out;
        },
        [this, asked = loading_](Loaded loaded) {
            if (asked.canceled()) return;
            wrong_.clear();
            for (std::size_t i = 0; i < meshes_.size(); ++i) meshes_[i].wrong = false;
            for (const auto& [row, note] : loaded.notes) meshes_[row].reason = spoken(note);
            for (const auto& [row, error] : loaded.errors) {
                meshes_[row].wrong = true;
                meshes_[row].reason = spoken(error.message());
                wrong_ = meshes_[row].reason;
            }
            jobs_.let_go({mesh_});
            mesh_ = std::move(loaded.mesh);
            outfit_ = std::move(loaded.outfit);
            details_ = std::move(loaded.details);
            detail_ = 0;
            parts_.clear();
            for (std::size_t p = 0; p < mesh_->parts.size(); ++p) {
                const auto title = part_title(mesh_->parts[p]);
                const bool hidden = std::find(choice_.hidden.begin(), choice_.hidden.end(), title) != choice_.hidden.end();
                parts_.push_back({loaded.mesh_of_part[p], title.empty() ? tr("part %L1").arg(p + 1) : to_qstring(title),
                                  mesh_->parts[p].triangles(), !hidden, true, outfit_.of_part[p] == 0});
            }
            another_ = true;
            build();
            dress();
            emit rows_changed();
        });
}

void TryOnModel::build() {
    building_.cancel();
    building_ = {};
    if (!mesh_) return;
    std::vector<std::size_t> there, worn;
    for (auto& part : parts_) part.at_this_detail = details_.empty();
    if (detail_ < details_.size())
        for (const auto p : details_[detail_].parts) parts_[p].at_this_detail = true;
    for (std::size_t p = 0; p < parts_.size(); ++p)
        if (parts_[p].on && parts_[p].at_this_detail) {
            there.push_back(p);
            if (parts_[p].wears) worn.push_back(p);
        }
    if (there.empty()) {
        box_ = {};
        pictures_.set_scene({nullptr, pictures_.scene().surfaces, nullptr});
        overlay_.reset();
        set_message(parts_.empty() ? QString() : tr("Nothing of it is on: switch a part on."));  // without parts something is wrong
        return;
    }
    struct Built {
        std::shared_ptr<const MeshRays> rays;
        std::optional<Error> error;
        Box3 box;
    };
    jobs_.run(
        this, {},
        [mesh = mesh_, there] {
            Built out;
            auto rays = MeshRays::make(mesh, there);
            if (!rays) {
                out.error = rays.error();
                return out;
            }
            out.rays = std::make_shared<MeshRays>(std::move(*rays));
            out.box = mesh->box(there);
            return out;
        },
        [this, asked = building_, worn](Built built) {
            if (asked.canceled()) return;
            if (built.error) return set_message(spoken(built.error->message()));
            box_ = built.box;
            auto scene = pictures_.scene();
            scene.rays = std::move(built.rays);
            scene.layout.reset();
            overlay_.reset();
            pictures_.set_scene(std::move(scene));
            message_.clear();
            emit scene_changed(std::exchange(another_, false));
            lay_out(worn);  // not at the same time: a layout belongs to the mesh that is there
        });
}

void TryOnModel::lay_out(const std::vector<std::size_t>& worn) {
    if (worn.empty()) return;
    jobs_.run(
        this, {},
        [mesh = mesh_, worn, size = texels_] {
            auto layout =
                std::make_shared<const UvLayout>(uv_layout(*mesh, worn, 0, std::uint32_t(size.width()), std::uint32_t(size.height())));
            return std::pair(layout, std::make_shared<const std::vector<OverlayLine>>(overlay_of(*layout)));
        },
        [this, asked = building_](auto made) {
            if (asked.canceled()) return;
            auto scene = pictures_.scene();
            scene.layout = std::move(made.first);
            overlay_ = std::move(made.second);
            pictures_.set_scene(std::move(scene));
            emit scene_changed(false);
        });
}

void TryOnModel::set_dressing(bool on) {
    if (on == dressing_on_) return;
    dressing_on_ = on;
    dress();
}

void TryOnModel::set_side(Side side) {
    if (side == side_) return;
    side_ = side;
    dress();
    emit rows_changed();
}

void TryOnModel::keep_choice() {
    choice_.meshes.clear();
    for (const auto& row : meshes_)
        if (row.on) choice_.meshes.push_back(text_of(row.place));
    choice_.hidden.clear();
    if (mesh_)
        for (std::size_t p = 0; p < parts_.size(); ++p)
            if (!parts_[p].on) choice_.hidden.push_back(part_title(mesh_->parts[p]));
    if (store_.is_open()) store_.change([&](Project& project) { project.try_on[key_] = choice_; });
}

void TryOnModel::put_mesh_on(std::size_t row, bool on) {
    if (row >= meshes_.size() || meshes_[row].on == on) return;
    meshes_[row].on = on;
    keep_choice();
    load();
}

void TryOnModel::use_only(std::size_t row) {
    if (row >= meshes_.size()) return;
    const auto on = std::count_if(meshes_.begin(), meshes_.end(), [](const MeshRow& one) { return one.on; });
    if (meshes_[row].on && on == 1 && !meshes_[row].wrong) return;
    for (std::size_t i = 0; i < meshes_.size(); ++i) meshes_[i].on = i == row;
    keep_choice();
    load();
}

void TryOnModel::add_file(const std::filesystem::path& file) {
    const MeshPlace place = Address{file, {}};
    auto found = std::find_if(meshes_.begin(), meshes_.end(), [&](const MeshRow& row) { return row.place == place; });
    if (found == meshes_.end())
        found = meshes_.insert(meshes_.begin(), {place, to_qstring(title_of(place)), tr("chosen by you"), false, false});
    use_only(std::size_t(found - meshes_.begin()));
}

void TryOnModel::put_part_on(std::size_t part, bool on) {
    if (part >= parts_.size() || parts_[part].on == on) return;
    parts_[part].on = on;
    keep_choice();
    build();
    emit rows_changed();
}

void TryOnModel::set_detail(std::size_t detail) {
    if (detail >= details_.size() || detail == detail_) return;
    detail_ = detail;
    build();
    emit rows_changed();
}

void TryOnModel::set_upright_z(bool on) {
    choice_.upright_z = on;
    keep_choice();
    emit scene_changed(true);
}

void TryOnModel::set_green_down(bool on) {
    choice_.green_down = on;
    keep_choice();
    dress();
}

bool TryOnModel::has_normals() const {
    const auto& surfaces = pictures_.scene().surfaces;
    return std::any_of(surfaces.begin(), surfaces.end(), [](const MeshSurface& s) { return s.normal != nullptr; });
}

bool TryOnModel::has_colors() const {
    return mesh_ && std::any_of(mesh_->parts.begin(), mesh_->parts.end(), [](const MeshPart& part) { return !part.colors.empty(); });
}

bool TryOnModel::is_plain() const {
    return std::all_of(meshes_.begin(), meshes_.end(),
                       [](const MeshRow& row) { return !row.on || std::holds_alternative<PlainMesh>(row.place); });
}

QString TryOnModel::message() const {
    if (!shown_) return tr("Choose a texture to see it on its object.");
    if (!message_.isEmpty()) return message_;
    return !wrong_.isEmpty() ? wrong_ : unread_.empty() ? QString() : unread_.begin()->second;
}

void TryOnModel::set_message(const QString& text) {
    message_ = text;
    emit scene_changed(false);
}

}  // namespace skivet::app
