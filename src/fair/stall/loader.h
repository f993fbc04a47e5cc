#pragma once
// The stand-in game's own loader. It is strict, and shares no code with Skivet.
#include <memory>
#include <optional>
#include <QImage>
#include <QMap>
#include <QString>
#include <QStringList>

namespace fair {

/// What the game's tables say about a texture.
struct Expected {
    int pixels = 0, width = 0, height = 0, levels = 0, layers = 1;
};

class Installation {
public:
    /// False when the game would refuse to start; `log` says why.
    /// A card's files stand in for the installation's: mods/NAME, whole or cut into NAME.00, NAME.01 and so on; those in mods/loose win
    /// over all archives. `card` may be empty.
    bool open(const QString& folder, const QString& card = {});
    /// Level `level` of a texture as the game sees it, in load order; nothing when it is wrong in any way, with a line in the log.
    std::optional<QImage> texture(const QString& path, int level = 0);
    QStringList log;
    /// The archive the game takes a texture from; empty when there is none.
    [[nodiscard]] QString source_of(const QString& path) const;

    /// Of all textures the game has in its tables.
    [[nodiscard]] QStringList paths() const { return manifest_.keys(); }
    [[nodiscard]] bool is_flat(const QString& path) const { return manifest_.value(path).layers == 1; }

private:
    struct Archive {
        QString name;
        bool loose = false;  ///< a folder
        QMap<QString, QByteArray> files;
    };
    /// From the card, or from the installation.
    [[nodiscard]] std::optional<QByteArray> file(const QString& name) const;
    void add_loose(const QString& folder, const QString& name);
    bool read_zip(const QString& name, const QByteArray& bytes, Archive& out);
    bool read_crate(const QString& name, const QByteArray& bytes, Archive& out);
    // archives.cpp
    bool read_other(const QString& name, const QByteArray& bytes, Archive& out);
    bool read_index(const QString& name, const QByteArray& bytes, Archive& out);
    bool read_strongbox(const QString& name, const QByteArray& bytes, Archive& out);
    bool read_hamper(const QString& name, const QByteArray& bytes, Archive& out);
    bool read_bale(const QString& name, const QByteArray& bytes, Archive& out);
    [[nodiscard]] std::optional<QByteArray> stepped_level(const Archive& archive, const QString& path, const Expected& expected, int level,
                                                          QString& why) const;

    QString folder_, card_;
    std::vector<Archive> archives_;  ///< in load order
    QMap<QString, Expected> manifest_;
};

/// The magenta and black checker of a missing texture.
QImage missing_texture();

}  // namespace fair
