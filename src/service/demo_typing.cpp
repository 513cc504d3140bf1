// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_typing.h"

#include "core/base/contract.h"
#include "core/logbook/typed_record.h"

#include <fmt/format.h>

#include <utility>

namespace inchpeg
{

std::string demoTypedRecord(Method method, const std::string &code, std::string_view table, char delimiter,
                            std::string_view gauge)
{
    TypedRecord record{code, "M. Quillfeather", std::string(gauge), {}};
    std::size_t row = 0;
    table.remove_prefix(table.find('\n') + 1); // the heading
    while (!table.empty()) {
        std::string_view line = table.substr(0, table.find('\n'));
        table.remove_prefix(line.size() + 1);
        TypedRow typedRow;
        while (true) {
            const std::size_t end = line.find(delimiter);
            typedRow.cells.emplace_back(line.substr(0, end));
            if (end == std::string_view::npos)
                break;
            line.remove_prefix(end + 1);
        }
        typedRow.takenAt = fmt::format("2026-05-{:02}T09:00:00Z", 4 + row++);
        record.rows.push_back(std::move(typedRow));
    }
    const Reduction &reduction = *reductionOf(method);
    std::vector<Unit> units;
    for (const TypedColumn &column : typedColumns(reduction))
        units.push_back(column.isElapsed ? *findUnit("h")
                                         : workingUnit(column.dimension.value_or(Dimension::Number)));
    Result<std::string> text = typedRecordText(record, reduction, units);
    require(text.has_value(), "the demo's own readings can be typed");
    return std::move(*text);
}

} // namespace inchpeg
