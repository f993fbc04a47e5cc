#pragma once
// All models of one window, and how they hear of each other. Whoever shows a page includes the header of that page's model instead.
#include "app/models/bench_model.h"
#include "app/models/card_keeper.h"
#include "app/models/catalog_model.h"
#include "app/models/delivery_model.h"
#include "app/models/frame_model.h"
#include "app/models/game_process.h"
#include "app/models/kin_model.h"
#include "app/models/parcel_model.h"
#include "app/models/shipped_model.h"
#include "app/models/sources_model.h"
#include "app/models/try_on_model.h"
#include "app/models/update_model.h"

namespace skivet::app {

struct Models {
    Models();
    ~Models();
    Models(const Models&) = delete;
    Models& operator=(const Models&) = delete;

    Jobs jobs;
    Messages messages;
    ProjectStore store{jobs, messages};
    SourcesModel sources{store};
    CatalogModel catalog{store};
    BenchModel bench{store};
    KinModel kin{store, catalog, bench};
    TryOnModel try_on{store, catalog, bench};
    FrameModel frame{store, catalog};
    DeliveryModel delivery{store};
    ParcelModel parcels{store};
    UpdateModel update{store};
    ShippedModel shipped{sources, catalog};
    CardKeeper card{store, sources, catalog};
    GameProcess game{messages};
};

}  // namespace skivet::app
