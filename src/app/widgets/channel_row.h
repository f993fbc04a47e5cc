#pragma once
#include <QWidget>

#include "app/models/pictures.h"

class QAction;

namespace skivet::app {

/// Which channels of a picture are looked at: a row of toggles, each with Alt and a letter.
class ChannelRow : public QWidget {
    Q_OBJECT
public:
    explicit ChannelRow(QWidget* parent = nullptr);
    [[nodiscard]] Channels channels() const { return channels_; }
    void set_channels(Channels channels);

signals:
    void chosen(Channels channels);

private:
    Channels channels_ = Channels::alpha_over;
    QList<QAction*> actions_;
};

}  // namespace skivet::app
