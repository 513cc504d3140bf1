// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStackedWidget>
#include <QVBoxLayout>

namespace inchpeg::app
{

/// Pages that are made when they are first seen: the window opens without waiting for them.
class LatePages : public QStackedWidget
{
    Q_OBJECT
public:
    explicit LatePages(int count, QWidget *parent = nullptr) : QStackedWidget(parent)
    {
        for (int page = 0; page < count; ++page) {
            auto *place = new QWidget;
            auto *layout = new QVBoxLayout(place);
            layout->setContentsMargins(0, 0, 0, 0);
            addWidget(place);
        }
    }

    /// The page at a place, made by make() where it is not there yet. page: where it is kept.
    template <typename Page, typename Make>
    Page &made(int place, Page *&page, Make make)
    {
        if (page == nullptr) {
            page = make();
            widget(place)->layout()->addWidget(page);
        }
        return *page;
    }
};

} // namespace inchpeg::app
