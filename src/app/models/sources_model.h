#pragma once
// The sources of the project in load order: opening them, looking through them, and what is known of each.
#include <QObject>

#include "app/models/found_model.h"

namespace skivet::app {

class SourcesModel : public QObject {
    Q_OBJECT
public:
    explicit SourcesModel(ProjectStore& store, QObject* parent = nullptr);

    /// Never null. While archives are looked through each one is the beginning of the next.
    [[nodiscard]] std::shared_ptr<const CatalogSnapshot> snapshot() const { return snapshot_; }
    /// True once the sources of the opened project were looked through, or that was stopped.
    [[nodiscard]] bool ready() const { return ready_; }
    /// The archives are being looked through.
    [[nodiscard]] bool looking() const { return looking_ != nullptr; }
    [[nodiscard]] SourceSetting setting(std::size_t index) const;
    [[nodiscard]] std::shared_ptr<const ReadContext> context() const { return store_.context(); }
    /// What has become of a source since the baseline, as far as it is known.
    [[nodiscard]] Shipped shipped(const std::filesystem::path& source) const;
    [[nodiscard]] bool has_baseline() const { return store_.has_baseline(); }
    /// Deliveries that stand.
    [[nodiscard]] const std::vector<Journal>& history() const { return store_.history(); }

    void add(const std::filesystem::path& path);
    void remove(std::size_t index);
    /// Later sources win: `up` moves towards the end of the list.
    void move(std::size_t index, bool up);
    /// Moves a source to another place in the load order.
    void place(std::size_t index, std::size_t place);
    void set(std::size_t index, const SourceSetting& setting);
    /// Takes a file (or all of a pattern) for a kind; an empty kind goes back to recognition.
    void choose_kind(const std::string& pattern, const std::string& kind);
    /// Paths that hashed names stand for.
    void accept_paths(const std::vector<std::string>& paths);
    /// What is found in the game's folder.
    [[nodiscard]] FoundModel* found() { return &found_; }
    /// Gives back a source's dead space, through the vault.
    void compact(std::size_t index);
    /// Opens everything anew and looks through it.
    void reload();

    /// Computes for a window over a source; see Jobs::run.
    template <class Work, class Done>
    void compute(QObject* asker, const QString& what, Work work, Done done) {
        jobs_.run(asker, what, std::move(work), std::move(done));
    }
    void complain(const Error& error) { messages_.complain(error); }

    [[nodiscard]] ProjectStore& store() const { return store_; }

signals:
    /// The list, or what is known of it, is other than before.
    void changed();
    /// Everything is opened anew: what was made of the old sources no longer holds.
    void reloading();
    /// A snapshot as it is understood so far; `ready()` tells whether it is the whole.
    void looked_through(std::shared_ptr<const AnalyzedCatalog> catalog);

private:
    void show(std::shared_ptr<const AnalyzedCatalog> catalog);
    void complete_baseline();

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    FoundModel found_;
    std::shared_ptr<const CatalogSnapshot> snapshot_ = std::make_shared<CatalogSnapshot>();
    std::map<std::filesystem::path, Shipped> became_;
    std::shared_ptr<Progress> looking_;  ///< of the newest reload; answers of older ones are dropped
    bool ready_ = false;
};

}  // namespace skivet::app
