#pragma once
// Work beside the window. A job is a function that computes on one of Jobs' threads and one that takes its result on the window's thread;
// the result is dropped when the object that asked for it is gone by then. Nothing else in the application starts a thread.
#include <memory>
#include <QObject>
#include <QPointer>
#include <QThreadPool>
#include <QTimer>
#include <vector>

#include "base/progress.h"

namespace skivet::app {

class Jobs : public QObject {
    Q_OBJECT
public:
    /// Who does a job.
    enum class By {
        workers,   ///< three threads, in any order: one may be taken for long by an export
        writer,    ///< one thread: everything that writes the game or the project, in the order it was asked for
        pictures,  ///< two threads for small pictures of what is on the screen, never behind anything else
        looker,    ///< one thread for what may take minutes and nobody waits for
    };

    explicit Jobs(QObject* parent = nullptr);
    ~Jobs() override;
    /// Ends what computes and waits for what writes. Called before anything that jobs refer to goes.
    void finish();
    /// Ends what computes, and does not wait; what writes goes on to its end, and nobody is told any more: whoever asked may be going, too.
    void leave();
    /// Whether nothing runs any more, after `leave`.
    [[nodiscard]] bool is_over();
    /// Canceled by `finish`.
    void end_with(const CancelToken& token);

    /// `work()` on a thread, then `done(result)` here, if `asker` still lives. `what` stands in the footer while anything runs; empty:
    /// not worth saying.
    template <class Work, class Done>
    void run(By by, QObject* asker, const QString& what, Work work, Done done) {
        begin(what);
        pool(by).start([this, asker = QPointer<QObject>(asker), work = std::move(work), done = std::move(done)]() mutable {
            auto result = std::make_shared<decltype(work())>(work());
            post([this, asker, result, done = std::move(done)]() mutable {
                end();
                if (asker && !left_) done(std::move(*result));
            });
        });
    }
    template <class Work, class Done>
    void run(QObject* asker, const QString& what, Work work, Done done) {
        run(By::workers, asker, what, std::move(work), std::move(done));
    }
    /// For small things that nobody waits for and that do not count as being busy: saving, freeing.
    void quietly(By by, std::function<void()> work);
    /// From a job, while it works: on the window's thread, if `asker` still lives.
    void tell(QPointer<QObject> asker, std::function<void()> what);
    /// Frees values beside the window: a hundred thousand entries take longer than its thread has.
    void let_go(std::vector<std::shared_ptr<const void>> old);

    /// A progress that is shown in the footer, and that `cancel` cancels, for as long as somebody holds it.
    [[nodiscard]] std::shared_ptr<Progress> shown_progress(const QString& what);
    /// Ends what is shown.
    void cancel();
    /// Set when the application ends.
    [[nodiscard]] CancelToken ending() const { return ending_; }
    [[nodiscard]] bool busy() const { return running_ > 0; }

signals:
    /// What runs; empty: nothing. `total` 0: how much there is to do is not known.
    void activity(const QString& what, quint64 done, quint64 total);

private:
    struct Shown {
        QString what;
        std::weak_ptr<Progress> progress;
    };
    void begin(const QString& what);
    void end();
    void post(std::function<void()> what);
    void show_progress();
    [[nodiscard]] QThreadPool& pool(By by) { return pools_[static_cast<std::size_t>(by)]; }

    QThreadPool pools_[4];
    CancelToken ending_;
    std::vector<Shown> shown_;
    std::vector<CancelToken> ends_;
    QTimer timer_;
    int running_ = 0;
    bool left_ = false;
};

}  // namespace skivet::app
