#pragma once
// One process for a person: a later start hands what it was asked for to the one that runs.
#include <filesystem>
#include <QLocalServer>

#include "base/file_lock.h"

namespace skivet::app {

/// What a start was asked for.
struct StartRequest {
    std::filesystem::path project;             ///< a project's folder; empty: none was named
    std::filesystem::path game;                ///< a game's folder; empty: none was named
    std::vector<std::filesystem::path> files;  ///< archives, folders, parcels
    std::vector<std::string> play;             ///< the command that starts the game
    bool operator==(const StartRequest&) const = default;
};
/// For the way to another process; paths keep every byte.
[[nodiscard]] QByteArray to_bytes(const StartRequest& request);
[[nodiscard]] std::optional<StartRequest> request_from(const QByteArray& bytes);

class Instance : public QObject {
    Q_OBJECT
public:
    /// `folder`: where the socket lies; only its owner may connect.
    explicit Instance(const std::filesystem::path& folder, QObject* parent = nullptr);
    /// $XDG_RUNTIME_DIR, or the person's folder for state.
    [[nodiscard]] static std::filesystem::path usual_folder();
    /// False when another process listens there already.
    [[nodiscard]] bool listens() const { return server_.isListening(); }
    /// Gives a request to the process that runs. False when none does, or does not answer within some seconds.
    [[nodiscard]] static bool hand_over(const std::filesystem::path& folder, const StartRequest& request);

signals:
    void asked(const StartRequest& request);

private:
    std::optional<FileLock> lock_;
    QLocalServer server_;
};

}  // namespace skivet::app
