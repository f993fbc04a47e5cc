#pragma once
// What was found in the game's folder, and what of it is ticked to become a source.
#include <QImage>
#include <QObject>

#include "app/models/project_store.h"
#include "workflow/installation.h"

namespace skivet::app {

class FoundModel : public QObject {
    Q_OBJECT
public:
    explicit FoundModel(ProjectStore& store, QObject* parent = nullptr);

    /// Null before the first look. Indexes into survey.found stay the same for one look.
    [[nodiscard]] std::shared_ptr<const Installation> installation() const { return installation_; }
    [[nodiscard]] bool looking() const { return looking_ != nullptr; }
    /// Goes through a folder; what is found shows as it is found.
    void look_through(const std::filesystem::path& game);
    /// Things in the game's folder that were not there when it was last gone through. Looked for when a project is opened.
    [[nodiscard]] std::size_t fresh() const { return fresh_; }

    [[nodiscard]] Standing standing(std::size_t found) const;
    /// One per found.
    [[nodiscard]] std::vector<bool> ticked() const;
    void tick(std::size_t found, bool on);
    /// What is proposed, whatever was ticked since, in the order in which it would be loaded.
    [[nodiscard]] std::vector<std::size_t> proposal() const;
    /// What is ticked, in the order in which it would be loaded; later ones win.
    [[nodiscard]] std::vector<std::size_t> order() const;
    /// Makes what is ticked the project's sources.
    void take();
    /// A sample of what was found; null while it is not there, and `picture_came` says when it is.
    [[nodiscard]] QImage picture(std::size_t found, std::size_t sample);

signals:
    void changed();
    void picture_came();
    void taken();

private:
    void take_over(std::shared_ptr<const Installation> installation);
    void look_for_news();

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const Installation> installation_;
    std::shared_ptr<Progress> looking_;
    std::map<std::filesystem::path, bool> ticks_;  ///< the person's own
    std::map<std::string, QImage> pictures_;       ///< by address; a null one is on its way or cannot be had
    std::size_t fresh_ = 0;
};

}  // namespace skivet::app
