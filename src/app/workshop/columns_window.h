#pragma once
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>

#include "app/models/try_on_model.h"

namespace skivet::app {

/// What the columns of a table of vertices hold, as their names say it, to be corrected.
class ColumnsWindow : public QDialog {
    Q_OBJECT
public:
    ColumnsWindow(QWidget* parent, std::shared_ptr<const TryOnModel::OpenTable> table);
    /// As it is chosen now.
    [[nodiscard]] TableReading reading() const;
    [[nodiscard]] QComboBox* meaning(std::size_t column) const { return meanings_[column]; }

signals:
    void kept(const skivet::TableReading& reading);

private:
    void check();
    std::shared_ptr<const TryOnModel::OpenTable> table_;
    std::vector<QComboBox*> meanings_;
    QCheckBox *v_up_, *strip_;
    QLabel* wrong_;
    QPushButton* use_;
};

}  // namespace skivet::app
