#include "app/pages/page.h"

#include <QContextMenuEvent>

namespace skivet::app {

void Page::contextMenuEvent(QContextMenuEvent* event) { show_menu_of(this, actions(), event->globalPos()); }

}  // namespace skivet::app
