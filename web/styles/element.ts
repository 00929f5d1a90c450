/** Looks of the Element Plus controls that are used, and of no others: all of them together are five times as large. */
import 'element-plus/es/components/button/style/css';
import 'element-plus/es/components/button-group/style/css';
import 'element-plus/es/components/checkbox/style/css';
import 'element-plus/es/components/dialog/style/css';
import 'element-plus/es/components/dropdown/style/css';
import 'element-plus/es/components/dropdown-item/style/css';
import 'element-plus/es/components/dropdown-menu/style/css';
import 'element-plus/es/components/infinite-scroll/style/css';
import 'element-plus/es/components/input/style/css';
import 'element-plus/es/components/input-tag/style/css';
import 'element-plus/es/components/notification/style/css';
import 'element-plus/es/components/option/style/css';
import 'element-plus/es/components/popover/style/css';
import 'element-plus/es/components/progress/style/css';
import 'element-plus/es/components/segmented/style/css';
import 'element-plus/es/components/select/style/css';
