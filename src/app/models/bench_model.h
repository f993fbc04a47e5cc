#pragma once
// The pieces of the project: their files, which are watched, and their pictures. Pieces are known by their ids.
#include <map>
#include <QObject>
#include <QTimer>

#include "app/models/fit_model.h"
#include "app/models/folder_watch.h"
#include "workflow/bring_in.h"
#include "workflow/kin.h"
#include "workflow/saves.h"

namespace skivet::app {

class BenchModel : public QObject {
    Q_OBJECT
public:
    explicit BenchModel(ProjectStore& store, QObject* parent = nullptr);

    [[nodiscard]] const std::vector<Piece>& pieces() const { return store_.project().pieces; }
    /// Null when it has been put away.
    [[nodiscard]] const Piece* piece(PieceId id) const { return store_.project().piece(id); }
    [[nodiscard]] std::filesystem::path work_folder() const { return store_.project().work(); }
    [[nodiscard]] std::filesystem::path file_of(const Piece& piece) const { return work_folder() / piece.file; }

    void take(const std::vector<Address>& addresses, const TakeAs& as);
    /// With what follows each of them.
    void take_with(std::vector<TakeWith> wanted, const TakeAs& as);
    /// The same texture under a path of its own, which comes into the archive with the delivery.
    void take_variant(const Address& like, const std::string& path);
    /// They follow the piece.
    void take_kin(PieceId id, std::vector<Kin> kin);
    /// Takes these to the bench and makes them larger or smaller by a factor.
    void scale_set(const std::vector<Address>& others, double factor);
    void put_away(PieceId id);
    /// Takes the piece anew from the game, for a piece gone stale. What its file holds is kept as a version.
    void take_again(PieceId id);
    /// Whether that replaces an edit: whoever wants it is asked.
    [[nodiscard]] bool is_edited(PieceId id) const;
    /// With the program the settings name, or the desktop's.
    void open_to_edit(PieceId id);

    /// A small picture of a piece, as the game has it or as it is on disk now; while it is read the last one, or none, and later
    /// picture_ready.
    [[nodiscard]] QImage picture(PieceId id, bool edited);
    [[nodiscard]] FitModel& fits() { return fits_; }
    /// Gives pieces these touch-ups (touch_up.h), in place of their own or behind them.
    void touch(const std::vector<PieceId>& ids, const std::vector<std::string>& touches, bool behind);
    /// The piece's picture as these touch-ups would make it, or why not; dropped when `asker` is gone.
    void preview(QObject* asker, PieceId id, std::vector<std::string> touches, CancelToken cancel,
                 std::function<void(Result<QImage>)> then);

    /// Files that were saved beside the pieces' own under the same name.
    [[nodiscard]] const std::vector<OtherSave>& others() const { return others_; }
    void use_file(PieceId id, const std::filesystem::path& file);
    /// Not offered again until it is saved anew.
    void pass_over(const OtherSave& other);

    /// Matches the pictures of a folder to the catalog's textures; dropped when `asker` is gone.
    void match(QObject* asker, std::shared_ptr<const AnalyzedCatalog> catalog, std::filesystem::path folder,
               std::shared_ptr<Progress> progress, std::function<void(Result<BroughtFolder>)> then);
    /// Each file becomes the edit of its texture.
    void bring_in(std::vector<std::pair<Address, std::filesystem::path>> files);
    void file_picture(QObject* asker, const std::filesystem::path& file, std::function<void(Result<QImage>)> then);
    /// The texture as it is in the game now.
    void game_picture(QObject* asker, const Address& address, std::function<void(Result<QImage>)> then);

    /// What was brought back, the newest first.
    [[nodiscard]] std::vector<Version> versions(PieceId id) const;
    [[nodiscard]] quint64 bytes_of_versions() const { return skivet::bytes_of_versions(store_.project()); }
    /// A version's picture, or that of what the file holds now (null); dropped when `asker` is gone.
    void version_picture(QObject* asker, PieceId id, const Version* version, std::function<void(Result<QImage>)> then);
    void go_back(PieceId id, const Version& version);
    void clear_versions();

signals:
    void pieces_changed();
    void picture_ready(PieceId id);

private:
    /// Small ones, and what they are of.
    struct Pictures {
        QImage original;
        std::string original_of;                ///< Piece::original_hash
        std::optional<NormalChannels> normals;  ///< where the original holds them
        QImage edited;
        std::string edit_of;  ///< Piece::edit
    };
    void note_pictures(PieceId id, Pictures pictures);
    void keep(Taken taken);
    /// `name` tells what is not known by its content.
    void picture_of(QObject* asker, const std::filesystem::path& file, const std::filesystem::path& name,
                    std::function<void(Result<QImage>)> then);
    void watch();
    void look();
    /// `first`: since the project was opened; what was saved before is said at once.
    void look_at_saves(bool first);
    void note(BenchLook look, bool first);
    /// These were saved: everybody is told.
    void tell_saved(const std::vector<PieceId>& ids, bool first = false);
    /// What was made of the piece's file as it was.
    void forget(PieceId id);

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    FitModel fits_;
    std::map<PieceId, Pictures> pictures_;
    std::list<PieceId> drawn_;  ///< of pictures_, the newest first
    std::shared_ptr<SeenFiles> seen_ = std::make_shared<SeenFiles>();
    std::vector<OtherSave> others_, passed_over_;
    bool looking_ = false, look_again_ = false;
    std::map<PieceId, std::string> pictures_pending_;  ///< and the edits they are read of
    FolderWatch watcher_;
    QTimer settle_;  ///< a program that saves touches a file several times
};

}  // namespace skivet::app
