#pragma once
#include <QHBoxLayout>

#include "app/widgets/helpers.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

/// A picture under its name, as a column of a row.
inline void add_titled(QHBoxLayout* row, ImageView* view, const QString& name) {
    auto* column = new QVBoxLayout;
    column->addWidget(make_label(name, "strong"));
    view->setAccessibleName(name);
    column->addWidget(view, 1);
    row->addLayout(column, 1);
}

}  // namespace skivet::app
