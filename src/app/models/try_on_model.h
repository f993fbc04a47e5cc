#pragma once
// One texture with its set on a mesh: which meshes there are for it, what lies on them, as the game has it, as it was painted, and as the
// game will get it (workflow/try_on.h).
#include <QObject>

#include "app/models/bench_model.h"
#include "app/models/catalog_model.h"
#include "app/models/mesh_pictures.h"
#include "app/models/overlay.h"
#include "workflow/try_on.h"

namespace skivet::app {

class TryOnModel : public QObject {
    Q_OBJECT
public:
    TryOnModel(ProjectStore& store, CatalogModel& catalog, BenchModel& bench, QObject* parent = nullptr);
    ~TryOnModel() override;
    /// For another view.
    [[nodiscard]] std::unique_ptr<TryOnModel> another() const { return std::make_unique<TryOnModel>(store_, catalog_, bench_); }

    void show_item(std::size_t item);
    void show_piece(PieceId piece);
    /// Whether textures are read and laid on. Who shows nothing but islands needs none.
    void set_dressing(bool on);
    /// Nothing is shown; what is being done for it ends.
    void clear();
    [[nodiscard]] bool is_empty() const { return !shown_; }
    [[nodiscard]] QString name() const { return shown_ ? to_qstring(shown_->name()) : QString(); }

    /// The texture as it is in the game, as it was painted, and as the game will get it; the last two where it is on the bench.
    enum class Side : std::uint8_t { game, yours, result };
    [[nodiscard]] Side side() const { return side_; }
    void set_side(Side side);
    [[nodiscard]] bool has_sides() const { return piece_of_shown() != nullptr; }

    struct MeshRow {
        MeshPlace place;
        QString name, reason;  ///< why it may be the texture's, or why it could not be read
        bool on = false, wrong = false;
    };
    [[nodiscard]] const std::vector<MeshRow>& meshes() const { return meshes_; }
    void put_mesh_on(std::size_t row, bool on);
    void use_only(std::size_t row);
    /// A file of the person's own; it is put on alone.
    void add_file(const std::filesystem::path& file);

    /// A table of vertices, and how its columns are read; `done` is called on the window's thread.
    struct OpenTable {
        VertexTable table;
        TableReading reading;
    };
    void open_table(const std::filesystem::path& file, std::function<void(Result<std::shared_ptr<const OpenTable>>)> done);
    /// Tables with these columns are read so from now on.
    void keep_reading(const VertexTable& table, const TableReading& reading);

    struct PartRow {
        std::size_t mesh = 0;  ///< its row
        QString title;
        quint64 triangles = 0;
        bool on = true;
        bool at_this_detail = true;
        bool wears = false;  ///< the texture that is tried on
    };
    [[nodiscard]] const std::vector<PartRow>& parts() const { return parts_; }
    void put_part_on(std::size_t part, bool on);
    /// Levels of detail, the finest first; one where there are none.
    [[nodiscard]] const std::vector<DetailLevel>& details() const { return details_; }
    [[nodiscard]] std::size_t detail() const { return detail_; }
    void set_detail(std::size_t detail);

    [[nodiscard]] bool upright_z() const { return choice_.upright_z; }
    void set_upright_z(bool on);
    [[nodiscard]] bool green_down() const { return choice_.green_down; }
    void set_green_down(bool on);
    [[nodiscard]] bool has_normals() const;
    /// Of vertices.
    [[nodiscard]] bool has_colors() const;
    /// Whether a plain body is all that is worn: then it may be tiled.
    [[nodiscard]] bool is_plain() const;

    [[nodiscard]] MeshPictures& pictures() { return pictures_; }
    /// Of what is on; an empty box where there is nothing.
    [[nodiscard]] Box3 box() const { return box_; }
    /// What is tried on, flat: null while it is read.
    [[nodiscard]] const QImage& flat() const { return flat_; }
    [[nodiscard]] SharedMap flat_map() const { return flat_map_; }
    [[nodiscard]] std::shared_ptr<const UvLayout> layout() const { return pictures_.scene().layout; }
    /// Its lines, a group an island: what lies inside faint, mirrored islands in the first look, shared ones in the second.
    [[nodiscard]] std::shared_ptr<const std::vector<OverlayLine>> overlay() const { return overlay_; }
    /// Texels of the first level.
    [[nodiscard]] QSize texels() const { return texels_; }
    /// What is being waited for, or what went wrong; empty: all is there.
    [[nodiscard]] QString message() const;

    /// Whether a piece may look otherwise than the game's texture.
    [[nodiscard]] static bool is_painted(const Piece& piece);

    /// Writes the islands at the texture's size as PNG or SVG, by the file's ending, alone or over the picture. `done` gets what went
    /// wrong.
    void save_islands(const std::filesystem::path& file, bool over_picture, std::function<void(std::optional<Error>)> done);

signals:
    /// Meshes or parts.
    void rows_changed();
    /// What is looked at; `another`: it stands elsewhere, so that one has to look at the whole of it.
    void scene_changed(bool another);

private:
    static QString to_qstring(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }
    struct Shown {
        Address address;
        PieceId piece = 0;
        std::string name() const;
    };
    /// A texture that is worn: an item, and the piece that is made of it.
    struct Worn {
        std::size_t item;
        PieceId piece;
        auto operator<=>(const Worn&) const = default;
    };
    using MapKey = std::pair<Worn, std::string>;  ///< and as what: "game", or the edit

    void begin(bool anew);
    void show_found(std::vector<FoundMesh> found);
    void load();
    void build();
    /// How the parts that wear the texture lie on it.
    void lay_out(const std::vector<std::size_t>& worn);
    void dress();
    void keep_choice();
    [[nodiscard]] const Piece* piece_of_shown() const;
    [[nodiscard]] std::size_t find_item(const Address& address) const;
    [[nodiscard]] std::vector<Worn> worn_of(std::size_t set) const;
    [[nodiscard]] float shape() const { return texels_.isEmpty() ? 1 : float(texels_.width()) / float(texels_.height()); }
    void set_message(const QString& text);

    ProjectStore& store_;
    CatalogModel& catalog_;
    BenchModel& bench_;
    Jobs& jobs_;
    MeshPictures pictures_;
    std::shared_ptr<const AnalyzedCatalog> seen_;  ///< the catalog's state that all is about
    std::optional<Shown> shown_;
    std::size_t item_ = 0;  ///< past the end: none of the catalog's
    std::string key_;
    TryOnChoice choice_;
    Side side_ = Side::game;
    CancelToken finding_, loading_, building_, dressing_;
    std::vector<MeshRow> meshes_;
    std::vector<PartRow> parts_;
    std::vector<DetailLevel> details_;
    std::size_t detail_ = 0;
    std::shared_ptr<const Mesh> mesh_;
    Outfit outfit_;
    Box3 box_;
    std::shared_ptr<const std::vector<OverlayLine>> overlay_;
    QSize texels_;
    std::map<MapKey, SharedMap> maps_;
    std::map<MapKey, QString> unread_;  ///< why a texture could not be read
    QImage flat_;
    SharedMap flat_map_;
    QString message_;  ///< what is waited for, or what to do
    QString wrong_;    ///< why a mesh could not be read
    bool dressing_on_ = true;
    bool another_ = true;
};

}  // namespace skivet::app
