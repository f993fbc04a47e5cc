#include "app/work_panel.h"

#include <cmath>
#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLocale>

#include "app/language.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"

namespace skivet::app {
namespace {

constexpr int width_of_panel = 520, footer_height = 28;
constexpr std::size_t most_ended = 5;
constexpr double worth_telling = 1;  // seconds

}  // namespace

QString duration_text(double seconds) {
    const auto whole = qint64(std::ceil(seconds));
    if (whole < 60) return WorkPanel::tr("%L1 s").arg(whole);
    if (whole < 3600) return WorkPanel::tr("%1 min %2 s").arg(whole / 60).arg(whole % 60);
    return WorkPanel::tr("%L1 h %2 min").arg(whole / 3600).arg(whole % 3600 / 60);
}

QString numbers_of(const Jobs::Work& work) {
    QStringList out;
    if (work.total > 0) out << WorkPanel::tr("%L1 of %L2").arg(work.done).arg(work.total);
    if (work.paused) out << WorkPanel::tr("halted");
    else if (work.total == 0) out << WorkPanel::tr("for %1").arg(duration_text(work.seconds));
    if (!work.paused && work.rate > 0) out << WorkPanel::tr("%1 a second").arg(QLocale().toString(work.rate, 'f', work.rate < 10 ? 1 : 0));
    if (const auto left = work.left()) out << WorkPanel::tr("%1 left").arg(duration_text(*left));
    return out.join(QStringLiteral(" · "));
}

WorkPanel::WorkPanel(Jobs* jobs, QWidget* parent) : QFrame(parent), jobs_(jobs) {
    setObjectName(QStringLiteral("overlay"));
    setAccessibleName(tr("What is being done"));
    setAutoFillBackground(true);
    setFocusPolicy(Qt::StrongFocus);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 12, 16, 12);
    box->setSpacing(8);
    box->addWidget(make_label(tr("BEING DONE"), "heading"));
    nothing_ = make_label(tr("Nothing runs."), "soft");
    box->addWidget(nothing_);
    rows_box_ = new QVBoxLayout;
    rows_box_->setSpacing(10);
    box->addLayout(rows_box_);
    ended_heading_ = make_label(tr("DONE"), "heading");
    box->addWidget(ended_heading_);
    ended_box_ = new QVBoxLayout;
    ended_box_->setSpacing(2);
    box->addLayout(ended_box_);
    ended_heading_->hide();
    connect(jobs_, &Jobs::work_changed, this, &WorkPanel::follow);
    connect(jobs_, &Jobs::work_ended, this, [this](const QString& what, double seconds) {
        if (seconds < worth_telling) return;
        ended_.push_front({what, seconds, QDateTime::currentSecsSinceEpoch()});
        if (ended_.size() > most_ended) ended_.pop_back();
        show_ended();
    });
    parent->installEventFilter(this);
    hide();
}

void WorkPanel::toggle() {
    setVisible(!isVisible());
    if (isVisible()) setFocus();
}

void WorkPanel::showEvent(QShowEvent* event) {
    QFrame::showEvent(event);
    follow();
    raise();
}

void WorkPanel::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) hide();
    else QFrame::keyPressEvent(event);
}

bool WorkPanel::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Resize && isVisible()) place();
    return QFrame::eventFilter(watched, event);
}

void WorkPanel::place() {
    layout()->activate();
    const int high = std::min(sizeHint().height(), parentWidget()->height() - footer_height - 16);
    setGeometry(8, parentWidget()->height() - footer_height - high - 8, std::min(width_of_panel, parentWidget()->width() - 16), high);
}

WorkPanel::Row WorkPanel::make_row(const Jobs::Work& work) {
    Row row{work.id, new QWidget, nullptr, nullptr, new QProgressBar, nullptr, nullptr};
    auto* box = new QVBoxLayout(row.frame);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    auto* line = new QHBoxLayout;
    row.name = make_elided_label("strong");
    row.pause = new Button(tr("Halt"), Button::Look::link);
    row.cancel = new Button(tr("Cancel"), Button::Look::link);
    line->addWidget(row.name, 1);
    line->addWidget(row.pause);
    line->addWidget(row.cancel);
    box->addLayout(line);
    row.bar->setTextVisible(false);
    row.bar->setFixedHeight(6);
    row.bar->setRange(0, 1000);
    box->addWidget(row.bar);
    row.numbers = make_label({}, "soft");
    box->addWidget(row.numbers);
    connect(row.pause, &QPushButton::clicked, this, [this, id = work.id] {
        for (const auto& now : jobs_->work())
            if (now.id == id) return jobs_->pause(id, !now.paused);
    });
    connect(row.cancel, &QPushButton::clicked, this, [this, id = work.id] { jobs_->cancel(id); });
    rows_box_->addWidget(row.frame);
    row.frame->show();  // what is not shown yet takes no room
    return row;
}

void WorkPanel::follow() {
    if (!isVisible()) return;
    const auto all = jobs_->work();
    for (auto& row : rows_)
        if (std::none_of(all.begin(), all.end(), [&](const Jobs::Work& w) { return w.id == row.id; })) {
            // The pressed button may be what asked for this.
            if (row.frame->isAncestorOf(focusWidget())) setFocus();
            row.frame->hide();
            row.frame->deleteLater();
            row.frame = nullptr;
        }
    std::erase_if(rows_, [](const Row& row) { return row.frame == nullptr; });
    for (const auto& work : all) {
        auto found = std::find_if(rows_.begin(), rows_.end(), [&](const Row& row) { return row.id == work.id; });
        if (found == rows_.end()) found = rows_.insert(rows_.end(), make_row(work));
        found->name->setText(work.what);
        found->numbers->setText(numbers_of(work));
        found->numbers->setAccessibleName(work.what + QStringLiteral(": ") + found->numbers->text());
        found->bar->setVisible(work.total > 0);
        found->bar->setAccessibleName(work.what);
        if (work.total > 0) found->bar->setValue(int(std::min(1.0, double(work.done) / double(work.total)) * 1000));
        found->pause->setVisible(work.can_pause);
        found->pause->setText(work.paused ? tr("Go on") : tr("Halt"));
        found->pause->setAccessibleName(found->pause->text() + QStringLiteral(": ") + work.what);
        found->cancel->setVisible(work.can_cancel);
        found->cancel->setAccessibleName(tr("Cancel: %1").arg(work.what));
    }
    nothing_->setVisible(rows_.empty());
    place();
}

void WorkPanel::show_ended() {
    clear_column(ended_box_);
    ended_heading_->setVisible(!ended_.empty());
    for (const auto& one : ended_)
        ended_box_->addWidget(make_label(tr("%1 · in %2 · at %3").arg(one.what, duration_text(one.seconds), clock_text(one.at)), "soft"));
    if (isVisible()) place();
}

}  // namespace skivet::app
