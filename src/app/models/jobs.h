#pragma once
// Work beside the window. A job is a function that computes on one of Jobs' threads and one that takes its result on the window's thread;
// the result is dropped when the object that asked for it is gone by then. Nothing else in the application starts a thread.
#include <chrono>
#include <deque>
#include <memory>
#include <new>
#include <optional>
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
        pool(by).start(
            [this, id = begin(what), asker = QPointer<QObject>(asker), work = std::move(work), done = std::move(done)]() mutable {
                stand_back();
                auto result = std::make_shared<std::optional<decltype(work())>>();
                try {
                    result->emplace(work());
                } catch (const std::bad_alloc&) {
                    // What the work held is given back by now. An answer that can be an error is one; any other does not come.
                    if constexpr (std::is_constructible_v<decltype(work()), tl::unexpected<Error>>)
                        result->emplace(fail(ErrorCode::limit, tr("There is not enough memory for this").toStdString(),
                                             tr("Close other programs, or do it in smaller parts").toStdString()));
                }
                post([this, id, asker, result, done = std::move(done)]() mutable {
                    const auto ended = end(id);
                    if (asker && !left_ && result->has_value()) done(std::move(**result));
                    if (!result->has_value() && !left_) emit memory_failed(ended.what);
                    say_ended(ended);
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

    /// A progress that is shown, and that `cancel` cancels, for as long as somebody holds it. `pause`, where the work can be halted, is
    /// told whether it is to be.
    [[nodiscard]] std::shared_ptr<Progress> shown_progress(const QString& what, std::function<void(bool)> pause = {});
    /// The same for a progress that is there.
    void show_work(const QString& what, const std::shared_ptr<Progress>& progress, std::function<void(bool)> pause = {});
    /// Ends what is shown.
    void cancel();

    /// Something that is being done, as a person sees it.
    struct Work {
        quint64 id = 0;
        QString what;
        quint64 done = 0, total = 0;  ///< total 0: how much there is to do is not known
        double rate = 0;              ///< of the last seconds, per second; 0: not known
        double seconds = 0;           ///< since it began
        bool can_cancel = false, can_pause = false, paused = false;
        /// Seconds that are left at this rate; nullopt: not known.
        [[nodiscard]] std::optional<double> left() const;
    };
    /// All of it, the oldest first.
    [[nodiscard]] std::vector<Work> work() const;
    void cancel(quint64 id);
    void pause(quint64 id, bool halt);
    /// The work that counts with this progress; nothing where it is not shown.
    [[nodiscard]] std::optional<quint64> id_of(const std::shared_ptr<Progress>& progress) const;
    /// Set when the application ends.
    [[nodiscard]] CancelToken ending() const { return ending_; }
    [[nodiscard]] bool busy() const { return running_ > 0; }

signals:
    /// What runs; empty: nothing. `total` 0: how much there is to do is not known.
    void activity(const QString& what, quint64 done, quint64 total);
    /// What `work` says is other than before; ten times a second while anything is counted.
    void work_changed();
    /// Work ended without an answer because there was no memory for it. `what` as it was named, or empty.
    void memory_failed(const QString& what);
    /// Named work came to its end, whichever; what it had to say was said.
    void work_ended(const QString& what, double seconds);

private:
    using Clock = std::chrono::steady_clock;
    struct Named {
        quint64 id;
        QString what;
        Clock::time_point since;
    };
    struct Shown {
        quint64 id;
        QString what;
        Clock::time_point since;
        std::weak_ptr<Progress> progress;
        std::function<void(bool)> pause;
        std::shared_ptr<Progress> held;                          ///< while it is halted
        std::deque<std::pair<Clock::time_point, quint64>> seen;  ///< how much was done, in the last seconds
    };
    quint64 begin(const QString& what);
    Named end(quint64 id);
    void say_ended(const Named& ended);
    void post(std::function<void()> what);
    /// This thread, and the ones it starts, get the processor when the window's has no use for it.
    static void stand_back();
    void show_progress();
    [[nodiscard]] QThreadPool& pool(By by) { return pools_[static_cast<std::size_t>(by)]; }

    QThreadPool pools_[4];
    CancelToken ending_;
    std::vector<Named> named_;  ///< what runs, the oldest first
    std::vector<Shown> shown_;
    quint64 last_ = 0;
    std::vector<CancelToken> ends_;
    QTimer timer_;
    int running_ = 0;
    bool left_ = false;
};

}  // namespace skivet::app
