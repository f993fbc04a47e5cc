#pragma once
// The catalog as it is understood so far: what the catalog page, its cards and its viewer show.
#include <QObject>

#include "app/models/small_pictures.h"
#include "catalog/export_items.h"
#include "workflow/pieces.h"

namespace skivet::app {

/// One texture, opened for the viewer.
struct OpenTexture {
    TextureFile texture;
    std::optional<Error> error;
};

class CatalogModel : public QObject {
    Q_OBJECT
public:
    explicit CatalogModel(ProjectStore& store, QObject* parent = nullptr);

    /// Never null; its snapshot neither.
    [[nodiscard]] std::shared_ptr<const AnalyzedCatalog> catalog() const { return catalog_; }
    [[nodiscard]] std::shared_ptr<const CatalogSnapshot> snapshot() const { return catalog_->snapshot; }
    /// Textures whose pictures nobody has looked at yet.
    [[nodiscard]] std::size_t unseen() const { return catalog_->unseen; }
    [[nodiscard]] const std::vector<KeptSearch>& kept_searches() const { return store_.project().searches; }
    [[nodiscard]] const std::vector<HabitChoice>& habits() const { return store_.project().habits; }
    /// The state of an item that is on the bench.
    [[nodiscard]] std::optional<PieceState> state_of(std::size_t item) const;
    [[nodiscard]] SmallPictures& pictures() { return pictures_; }
    [[nodiscard]] Address address_at(std::size_t item) const;

    /// Takes over what was looked through, in part or as a whole, and looks at the pictures of a whole one.
    void show(std::shared_ptr<const AnalyzedCatalog> catalog);

    /// The user's word on what textures are for; `unsure` takes it back.
    void set_role(const std::vector<std::size_t>& items, Role role);
    /// The same for the part of its name that says the role, or of one chosen: all textures named so follow.
    void set_habit(const RoleHabit& habit);
    void forget_habit(const RoleHabit& habit);
    void keep_search(const std::string& name, const CatalogQuery& query);
    void forget_search(const std::string& name);

    /// What belongs to a texture; `done` is called on the window's thread.
    void relate(std::size_t item, std::function<void(const Relations&)> done);
    /// Textures that look like a picture, the most alike first; or why the picture cannot be used.
    void find_picture(const QImage& picture, std::function<void(Result<std::vector<PictureHit>>)> done);
    void find_picture(const std::filesystem::path& file, std::function<void(Result<std::vector<PictureHit>>, QImage)> done);
    /// Opens an item's texture on a worker; `done` is called on the window's thread.
    void open_texture(std::size_t item, std::function<void(std::shared_ptr<const OpenTexture>)> done);

    /// Asks for textures on the bench; what is no texture is left out. `copies`: what shows the same picture follows.
    void take(const std::vector<std::size_t>& items, const TakeAs& as, bool copies = false);
    /// A texture with all that show the same picture: they follow its edit.
    void take_variant(std::size_t item, const std::string& path);
    /// With the next delivery. An empty path: it goes.
    void rename(std::size_t item, const std::string& path);
    void take_out(const std::vector<std::size_t>& items);
    /// The path of an item inside its archive.
    [[nodiscard]] std::string path_of(std::size_t item) const;
    void take_with_copies(std::size_t item, const Relations& relations);
    /// With all members of their sets, each once, in the order of the catalog's sets.
    [[nodiscard]] std::vector<std::size_t> with_sets(const std::vector<std::size_t>& items) const;
    /// A texture's colors and its alpha apart, at most `side` texels a side, and what its alpha is; dropped when `asker` is gone.
    struct AlphaLook {
        TextureDesc desc;
        QImage color, alpha;  ///< no alpha where there is none
        QString words;        ///< what the alpha is
    };
    void look_at_alpha(QObject* asker, std::size_t item, std::uint32_t side, std::function<void(Result<AlphaLook>)> done);

    /// Writes textures out beside the window; one export at a time. `done` gets the report on the window's thread.
    void export_items(const std::vector<std::size_t>& items, const ExportWish& wish, const std::filesystem::path& to, bool force,
                      std::function<void(const Result<ExportReport>&)> done);
    /// Writes textures as files for another program, which may take its time with them: into the cache, where they go after a day. At most
    /// `most_aside`.
    void write_aside(const std::vector<std::size_t>& items, ExportAs as,
                     std::function<void(Result<std::vector<std::filesystem::path>>)> done);
    static constexpr std::size_t most_aside = 200;
    /// Of the running export; null when there is none.
    [[nodiscard]] std::shared_ptr<ExportProgress> exporting() const { return exporting_; }

    [[nodiscard]] Jobs& jobs() const { return jobs_; }
    void tell(const QString& text) { messages_.tell(text); }
    void refuse(const QString& text) { messages_.refuse(text); }
    void complain(const Error& error) { messages_.complain(error); }

signals:
    /// Other textures than before.
    void catalog_changed();
    /// Roles, sets, twins, or what searches see, are other than before.
    void analysis_changed();
    /// The bench has other textures, or in another state.
    void states_changed();
    void wanted(const std::vector<TakeWith>& textures, const TakeAs& as);
    /// The same texture under a path of its own.
    void variant_wanted(const Address& like, const std::string& path);
    /// Entries are to get other names, or to go.
    void changes_wanted(const std::vector<EntryChange>& changes);

private:
    /// Says which of these something else changed since the installation was recorded; where the project takes none of those they are taken
    /// out of the list. False when none is left.
    bool may_take(std::vector<std::size_t>& textures);
    [[nodiscard]] QString to_text_of(std::size_t item) const;
    void measure_pictures();
    void replace(std::shared_ptr<const AnalyzedCatalog> catalog);
    void analyze_again();
    [[nodiscard]] bool out_of_date(const AnalyzedCatalog& catalog) const;

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    SmallPictures pictures_;
    std::shared_ptr<const AnalyzedCatalog> catalog_ = empty_catalog();
    std::shared_ptr<Progress> looking_;            ///< at pictures; answers of older ones are dropped
    std::shared_ptr<const PictureSearch> search_;  ///< made when first asked for
    std::shared_ptr<ExportProgress> exporting_;
};

}  // namespace skivet::app
