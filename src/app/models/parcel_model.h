#pragma once
// The parcels in the game, a change of them that is looked at before it is written, and making one.
#include <QImage>
#include <QObject>

#include "app/models/project_store.h"
#include "workflow/parcels.h"

namespace skivet::app {

class ParcelModel : public QObject {
    Q_OBJECT
public:
    explicit ParcelModel(ProjectStore& store, QObject* parent = nullptr);

    /// Plans the stack as it is, to know where layers meet.
    void look();
    /// Reads a parcel, or a mod of another form, and plans to put it in.
    void bring(const std::filesystem::path& path);
    void take_out(const std::string& id);
    /// To another place, 0 the lowest; an empty id is one's own work.
    void move(const std::string& id, std::size_t place);
    void prefer(const Address& address, const std::string& id);
    /// Forgets the change that was looked at.
    void leave() { look(); }
    /// Writes the change that is looked at.
    void carry_out();

    /// The newest plan: of the stack as it is, or of a change that waits; null before the first.
    [[nodiscard]] std::shared_ptr<const StackPlan> plan() const { return plan_; }
    /// Whether the plan is a change that waits for a yes.
    [[nodiscard]] bool waits() const { return waits_; }
    /// What the change brings; null when it brings nothing.
    [[nodiscard]] std::shared_ptr<const ReadMod> mod() const { return mod_; }
    [[nodiscard]] const std::vector<TextureMatch>& matches() const { return matches_; }
    [[nodiscard]] const ParcelStack& stack() const { return store_.project().stack_state.stack; }
    [[nodiscard]] const Project& project() const { return store_.project(); }

    /// A parcel of the stack as it was installed, read beside the window.
    void read(QObject* asker, const StackLayer& layer, std::function<void(Result<Parcel>)> then);
    /// A texture as the original has it and as each layer alone would.
    struct Side {
        std::optional<std::size_t> layer;  ///< index into plan()->wanted.layers; none: the original
        QImage picture;
    };
    void sides(QObject* asker, const Address& address, std::function<void(Result<std::vector<Side>>)> then);

    /// A parcel's own pictures of a texture, for one that the game does not have; null where it brings none.
    void previews(QObject* asker, std::size_t texture, std::function<void(QImage before, QImage after)> then);

    void make(QObject* asker, const MakeWish& wish, std::function<void(Result<MadeParcel>)> then);
    void write(std::shared_ptr<const MadeParcel> made, const std::filesystem::path& file);

signals:
    /// There is another plan.
    void changed();
    /// A change that was asked for cannot be made, and why.
    void refused(const QString& why);
    void written(const QString& file);

private:
    struct Prepared;
    using Want = std::function<Result<ParcelStack>(const ReadContext&, const Project&)>;
    void prepare(const QString& what, const std::string& title, bool waits, Want want);
    void show(Prepared prepared);

    ProjectStore& store_;
    Jobs& jobs_;
    Messages& messages_;
    std::shared_ptr<const StackPlan> plan_;
    std::shared_ptr<const ReadMod> mod_;
    std::vector<TextureMatch> matches_;
    bool waits_ = false;
    std::uint64_t requests_ = 0;
};

}  // namespace skivet::app
