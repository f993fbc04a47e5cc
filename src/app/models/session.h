#pragma once
// What the window works on: a project, its sources, the catalog, the bench, the vault. Everything that touches a disk or decodes runs on
// the session's own threads and comes back as a queued signal; the window's thread only looks at finished values.
#include <map>
#include <QCache>
#include <QElapsedTimer>
#include <QFileSystemWatcher>
#include <QObject>
#include <QProcess>
#include <QSet>
#include <QStringList>
#include <QThreadPool>
#include <QTimer>

#include "app/models/pictures.h"
#include "catalog/baseline.h"
#include "catalog/export_items.h"
#include "catalog/indexing.h"
#include "catalog/query.h"
#include "delivery/vault.h"
#include "workflow/project.h"

namespace skivet::app {

/// What a source's page says beside its entries.
struct SourceFacts {
    std::vector<std::pair<std::string, std::string>> candidates;  ///< kinds it may be and why, the most likely first
    std::string chosen;                                           ///< the kind the user chose for it; empty: recognized
    std::string read_only;                                        ///< why nothing can be put in
    std::uint64_t dead_bytes = 0;                                 ///< what nothing uses any more
    std::size_t unnamed = 0;                                      ///< entries known only by a hash
    bool wants_key = false;                                       ///< no key of the ring opens it, or an entry of it
};

/// The open sources and what is in them; replaced as a whole, never changed.
struct Stock {
    std::vector<Source> sources;
    Catalog catalog;
    std::vector<std::vector<Segment>> segments;  ///< a list a source, for the byte map
    std::vector<std::size_t> texture_counts;     ///< a source
    std::vector<SourceFacts> facts;              ///< a source
    bool whole = false;                          ///< everything was looked through; otherwise more is coming
};

/// What is known of a stock's textures, and the table that answers searches. Replaced as a whole while pictures are looked at.
struct Knowledge {
    std::shared_ptr<const Stock> stock;  ///< what it is about
    CatalogAnalysis analysis;
    QueryTable table;
    RoleWishes wishes;
    std::size_t unseen = 0;  ///< textures that are still to be looked at
};

/// Where else a texture is, and what belongs to it; for the viewer.
struct Relations {
    std::vector<std::size_t> set;     ///< all members, itself included; empty without a set
    std::vector<AlikeTexture> alike;  ///< items that look like it
    std::vector<std::string> users;   ///< objects that use it, where known
    std::vector<std::size_t> copies;  ///< items with the same path in other sources, the winning one first
    RoleGuess role;
    PictureFacts facts;
    bool seen = false;  ///< it was looked at, so that `facts` hold
};

/// What one delivery into one source would write.
struct DeliveryGroup {
    std::filesystem::path source;
    WritePlan plan;
    std::vector<std::size_t> pieces;  ///< indices into the project's pieces
    std::vector<AddressedBytes> contents;
    std::uint64_t archive_size = 0;
    std::optional<Error> error;
    std::vector<std::string> notes = {};  ///< what else the plan does, for the person
    bool beside = false;                  ///< `source` is a folder or archive beside the game's own
};

struct DeliveryPlan {
    std::vector<DeliveryGroup> groups;
    std::vector<std::size_t> left_out;  ///< changed pieces that need a mend first
    [[nodiscard]] std::size_t piece_count() const;
};

/// One texture, opened for the viewer.
struct OpenTexture {
    TextureFile texture;
    std::optional<Error> error;
};

class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    /// Opens or makes the project; a game folder gives the sources of a new project.
    void open(const std::filesystem::path& folder, const std::filesystem::path& game,
              const std::vector<std::filesystem::path>& more_sources, const std::vector<std::string>& play);

    /// Sets the project.json that cannot be read aside and opens the last good copy.
    void open_last_good();
    /// Gives the project free for another window, once everything that is to be kept is on the disk. Nothing is kept afterwards.
    void close();
    /// False until a project is open, and when it could not be: then nothing is kept anywhere.
    [[nodiscard]] bool has_project() const { return has_project_; }

    [[nodiscard]] const Project& project() const { return project_; }
    [[nodiscard]] std::shared_ptr<const Stock> stock() const { return stock_; }
    /// Never null; of an older stock only until the next one arrives.
    [[nodiscard]] std::shared_ptr<const Knowledge> knowledge() const { return knowledge_; }
    [[nodiscard]] const Kinds& kinds() const { return *kinds_; }
    /// The same for workers, which keep it while they run.
    [[nodiscard]] std::shared_ptr<const Kinds> shared_kinds() const { return kinds_; }
    [[nodiscard]] const std::vector<Journal>& history() const { return history_; }
    [[nodiscard]] const std::vector<QString>& log() const { return log_; }
    [[nodiscard]] bool busy() const { return running_ > 0; }
    /// True once sources and catalog of the opened project are there.
    [[nodiscard]] bool ready() const { return ready_; }

    void add_source(const std::filesystem::path& path);
    void remove_source(std::size_t index);
    /// Later sources win: `up` moves towards the end of the list.
    void move_source(std::size_t index, bool up);
    /// Takes a file (or all of a pattern) for a kind; an empty kind goes back to recognition.
    void choose_kind(const std::string& pattern, const std::string& kind);
    /// Names only; values stay inside.
    [[nodiscard]] std::vector<std::string> key_names() const;
    /// "NAME=HEX", "NAME=text:WORDS" or "NAME=@FILE". An error is returned and nothing is kept.
    [[nodiscard]] Status add_key(const std::string& text);
    void remove_key(const std::string& name);
    /// Keeps a sheet with the project and opens everything anew with it. `done` gets the file, or why it could not be kept.
    void save_sheet(const std::string& name, const std::string& toml, std::function<void(const Result<std::filesystem::path>&)> done);
    /// Paths that hashed names stand for.
    void accept_paths(const std::vector<std::string>& paths);
    /// Gives back a source's dead space, through the vault.
    void compact(std::size_t index);
    void set_commands(const std::vector<std::string>& editor, const std::vector<std::string>& play);

    /// Moves a source to another place in the load order.
    void place_source(std::size_t index, std::size_t place);
    void set_source(std::size_t index, const SourceSetting& setting);
    /// Takes the installation as it is for what the game's maker shipped.
    void record_baseline();
    [[nodiscard]] bool has_baseline() const { return has_baseline_; }
    /// What has become of a source since the baseline, as far as it is known.
    [[nodiscard]] Shipped shipped(const std::filesystem::path& source) const {
        const auto found = became_.find(source);
        return found == became_.end() ? Shipped::unknown : found->second;
    }

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

    /// A picture of at most 128 × 128, or a null image and later thumbnail_ready. The newest request is answered first.
    [[nodiscard]] QImage thumbnail(std::size_t item);
    /// Opens an item's texture on a worker; `done` is called on the window's thread.
    void open_texture(std::size_t item, std::function<void(std::shared_ptr<const OpenTexture>)> done);

    void take(const std::vector<std::size_t>& items, ExportAs as);
    /// The texture with all that show the same picture: they follow its edit.
    void take_with_copies(std::size_t item, const Relations& relations);
    void put_away(std::size_t piece);
    void open_to_edit(std::size_t piece);
    /// Takes the piece anew from the game, for a piece gone stale.
    void take_again(std::size_t piece);
    /// Small pictures of a piece: as the game has it, and as it is on disk now.
    [[nodiscard]] QImage piece_picture(std::size_t piece, bool edited);
    /// The newest fit, or null and later fit_ready.
    [[nodiscard]] std::shared_ptr<const FittedPiece> fit(std::size_t piece);
    void mend(std::size_t piece, Mend mend);

    void make_plan();
    [[nodiscard]] std::shared_ptr<const DeliveryPlan> plan() const { return plan_; }
    void deliver();
    /// Where deliveries go; kept in the project.
    void set_route(DeliveryRoute route);
    /// Opens everything anew and looks whether the pieces' textures are still what was taken, after somebody else changed an archive.
    void look_again();
    void undo(const QString& id);
    void undo_all();

    /// Writes textures out beside the window; one export at a time. `done` gets the report on the window's thread.
    void export_items(const std::vector<std::size_t>& items, const ExportWish& wish, const std::filesystem::path& to, bool force,
                      std::function<void(const Result<ExportReport>&)> done);
    /// Of the running export; null when there is none.
    [[nodiscard]] std::shared_ptr<ExportProgress> exporting() const { return exporting_; }

    /// Starts the game; false with a message when no command is set.
    bool try_in_game();
    [[nodiscard]] QProcess* game_process() { return &game_; }

    /// Computes on a worker and hands the result to `done` on the window's thread; for pictures of what is already open.
    template <class Work, class Done>
    void compute(Work work, Done done) {
        run(tr("Reading pictures"), std::move(work), std::move(done));
    }
    /// The same for anything else a window wants to know; `what` stands in the footer.
    template <class Work, class Done>
    void compute(const QString& what, Work work, Done done) {
        run(what, std::move(work), std::move(done));
    }

    /// Stops looking through the archives; what was found so far is dropped.
    void cancel() {
        if (progress_) progress_->cancel.cancel();
        if (looking_) looking_->cancel.cancel();
    }
    void say(const QString& line);

signals:
    /// The project could not be opened; nothing was changed. `good_copy`: an earlier state of it is there.
    void project_refused(const QString& why, bool good_copy);
    void sources_changed();
    void catalog_changed();
    /// Roles, sets, twins, or what searches see, are other than before.
    void knowledge_changed();
    void thumbnail_ready(std::size_t item);
    void pieces_changed();
    void piece_picture_ready(std::size_t piece);
    void fit_ready(std::size_t piece);
    void plan_ready();
    void history_changed();
    void delivered();
    /// A delivery found that another program changed this archive; nothing was written.
    void changed_by_others(const QString& archive);
    /// `total` 0: how much there is to do is not known.
    void activity(const QString& what, quint64 done, quint64 total);
    void logged(const QString& line);
    /// Something the person should see now.
    void notice(const QString& text);

private:
    /// Runs `work` on a worker and `done(result)` on this thread.
    template <class Work, class Done>
    void run(const QString& what, Work work, Done done) {
        ++running_;
        emit activity(what, 0, 0);
        pool_.start([this, work = std::move(work), done = std::move(done)]() mutable {
            auto result = std::make_shared<decltype(work())>(work());
            QMetaObject::invokeMethod(
                this,
                [this, result, done = std::move(done)]() mutable {
                    --running_;
                    if (running_ == 0) emit activity({}, 0, 0);
                    done(std::move(*result));
                },
                Qt::QueuedConnection);
        });
    }
    void complain(const Error& error);
    /// Says that there is no project to keep things in, when there is none.
    [[nodiscard]] bool needs_project();
    [[nodiscard]] Vault vault() const;
    void reload();
    void show_stock(std::shared_ptr<Stock> stock, std::shared_ptr<Knowledge> knowledge);
    void look_at_pictures();
    /// Frees values beside the window.
    void let_go(std::vector<std::shared_ptr<const void>> old);
    void know_again();
    [[nodiscard]] RoleWishes wishes() const;
    void complete_baseline();
    [[nodiscard]] QString thumbnail_key(std::size_t item) const;
    void load_thumbnails();
    void keep_keys(KeyRing ring);
    void set_kinds(const std::function<void(Kinds&)>& change);
    void save();
    void watch_pieces();
    void look_at_pieces();
    void refresh_history();
    void forget_pictures(std::size_t piece);

    std::shared_ptr<const Kinds> shipped_;  ///< without the project's own sheets
    std::shared_ptr<const Kinds> kinds_;
    Project project_;
    std::optional<FileLock> project_lock_;
    bool has_project_ = false;
    struct {
        std::filesystem::path folder, game;
        std::vector<std::filesystem::path> more;
        std::vector<std::string> play;
    } asked_;  ///< what `open` was last asked for
    std::shared_ptr<const Stock> stock_;
    std::vector<Journal> history_;
    std::shared_ptr<const DeliveryPlan> plan_;
    std::map<std::size_t, std::shared_ptr<const FittedPiece>> fits_;
    QSet<std::size_t> fitting_;
    std::map<std::size_t, std::uint64_t> fit_request_;  ///< the newest one; answers to older ones are dropped
    std::map<std::pair<std::size_t, bool>, QImage> piece_pictures_;
    QSet<std::size_t> piece_pictures_pending_;
    std::shared_ptr<const Knowledge> knowledge_;
    std::shared_ptr<IndexStore> index_;
    std::shared_ptr<Baseline> baseline_;
    bool has_baseline_ = false;
    std::map<std::filesystem::path, Shipped> became_;  ///< a source: against the baseline
    std::shared_ptr<ThumbnailCache> cache_;
    std::shared_ptr<ExportProgress> exporting_;
    std::shared_ptr<Progress> looking_;            ///< of looking at pictures
    std::shared_ptr<const PictureSearch> search_;  ///< made when first asked for
    std::shared_ptr<const Knowledge> search_of_;
    QCache<QString, QImage> thumbnails_;  ///< by source and path
    QSet<QString> thumbnails_pending_;
    QVector<std::size_t> thumbnails_wanted_;  ///< the newest last
    int thumbnails_running_ = 0;
    std::uint64_t generation_ = 0;        ///< of the stock; late answers for an older one are dropped
    std::uint64_t piece_generation_ = 0;  ///< of the list of pieces
    int running_ = 0;
    bool ready_ = false;
    CancelToken cancel_;
    std::shared_ptr<Progress> progress_;
    QTimer progress_timer_;
    QFileSystemWatcher watcher_;
    QTimer settle_;
    QProcess game_;
    std::vector<QString> log_;
    mutable PosixFiles files_;
    QThreadPool pool_;
    QThreadPool saver_;     ///< one thread: saves and deliveries happen in order
    QThreadPool pictures_;  ///< small pictures for the view, never behind anything else
    QThreadPool looker_;    ///< one thread: looking at all pictures
};

}  // namespace skivet::app
